import { device as d, lead as l, rigOf } from '../../testing/rigs';
import { links, sheet, whole, rules, found, fixed } from './by-hand';

describe('a handful of slots', () => {
  const rig = (settings: Record<string, string>, source = 'guitar-humbucker') =>
    rigOf(
      [
        d('g', source, 'G'),
        d('m', 'modeler-compact', 'M', { settings }),
        d('a', 'amp-block', 'Amp', { host: 'm' }),
        d('desk', 'console-input', 'House', { settings: { input: 'line' } }),
      ],
      [
        l('1', 'g.out', 'm.in', 3),
        l('2', 'm.out', 'desk.in', 5),
        ...links(['m.fromIn', 'a.in'], ['a.out', 'm.toOut']),
      ],
    );
  test('a low input impedance takes treble from a bare pickup, told in decibels, and cured by a setting', () => {
    const r = whole(rig({ inputLoad: '22k' }));
    expect(found(r, 'host-input')[0]!.why).toMatch(/^That takes \d+\.\d dB at 5 kHz/);
    expect(rules(whole(fixed(rig({ inputLoad: '22k' }), r, 'host-input')))).not.toContain(
      'host-input',
    );
    expect(rules(whole(rig({ inputLoad: '22k' }, 'guitar-active')))).not.toContain('host-input');
  });
  test('line level into an instrument input clips, and line input under a pickup wastes its room', () => {
    const loud = rigOf(
      [
        d('g', 'line-instrument', 'G', sheet({ nominalDbu: 4, peakDbu: 18 })),
        d('m', 'modeler-compact', 'M'),
        d('desk', 'console-input', 'H', { settings: { input: 'line' } }),
      ],
      [
        l('1', 'g.out', 'm.in', 3),
        l('2', 'm.out', 'desk.in', 5),
        ...links(['m.fromIn', 'm.toOut']),
      ],
    );
    expect(found(whole(loud), 'headroom').find((f) => f.subjects[0] === 'm')!.fix!.words).toBe(
      'Set M, Input level: line',
    );
    expect(found(whole(rig({ inputLevel: 'line' })), 'host-input')[0]!.fix!.words).toBe(
      'Set M, Input level: instrument',
    );
  });
});
