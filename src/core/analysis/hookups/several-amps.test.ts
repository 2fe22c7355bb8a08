import { type Rig } from '../../rig';
import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { sheet, whole, rules, found, at } from './by-hand';

describe('several amplifiers, several cabinets', () => {
  const rig = (unselected: string, change: Partial<Rig> = {}) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('sw', 'amp-switcher', 'Switcher', { settings: { unselected } }),
        d('h1', 'head-tube-two', 'Head 1', sheet({ tapOhms: 8 })),
        d('h2', 'head-tube-two', 'Head 2', sheet({ tapOhms: 16 })),
        d('h3', 'head-tube', 'Head 3'),
        d('c1', 'cabinet', 'Cab 1'),
        d('c2', 'cabinet', 'Cab 2', sheet({ ohms: 16, watts: 200 })),
        d('att', 'attenuator', 'Attenuator', sheet({ watts: 200 })),
        d('dly', 'delay', 'Delay', { engaged: true }),
        d('t', 'tuner-rack', 'Tuner'),
      ],
      [
        l('1', 'g.out', 'sw.inRear', 6),
        ...[1, 2, 3].flatMap((n) => [
          l(`a${n}`, `sw.amp${n}`, `h${n}.in`, 2),
          l(`s${n}`, `h${n}.speaker`, `sw.speaker${n}`, 2, 'speaker'),
        ]),
        ...[1, 2].flatMap((n) => [
          l(`x${n}`, `h${n}.send`, `sw.send${n}`, 2),
          l(`y${n}`, `sw.return${n}`, `h${n}.return`, 2),
          l(`c${n}`, `sw.cab${n}`, `c${n}.in`, 3, 'speaker'),
        ]),
        l('ls', 'sw.loopSend', 'dly.in', 3),
        l('lr', 'dly.out', 'sw.loopReturn', 3),
        l('ts', 'sw.lineSend', 'att.in', 1, 'speaker'),
        l('tr', 'att.out', 'sw.lineReturn', 1, 'speaker'),
        l('t', 'sw.tuner', 't.in', 2),
      ],
      [
        s('a', 'One', [], { sw: { settings: { amp: '1', cab: '1' } } }),
        s('b', 'Two', [], { sw: { settings: { amp: '2', cab: '2' } } }),
        s('c', 'Three', [], { sw: { settings: { amp: '3', cab: '1' } } }),
        s('d', 'Tuning', [], { sw: { settings: { amp: 'none', cab: 'none' } } }),
      ],
      change,
    );
  test(
    'each state: the chosen amplifier and cabinet, the shared loop where the amplifier ' +
      'has one, nothing selected is silent tuning',
    () => {
      const r = whole(rig('load'));
      expect(
        r.sounds.map((x) => x.destinations.filter((y) => y.levelDbu).map((y) => y.device)),
      ).toEqual([['c1', 't'], ['c2', 't'], ['c1', 't'], ['t']]);
      expect(at(r, 'a', 'c1').latencyMs).toBe(1.5);
      expect(at(r, 'c', 'c1').latencyMs).toBe(0);
      expect(rules(r)).not.toContain('no-route');
      expect(rules(r)).not.toContain('no-load');
      expect(found(r, 'dead-controls')).toEqual([]);
    },
  );
  test('the attenuator serves every amplifier: the load each sees, by hand, and the wrong tap told', () => {
    const r = whole(rig('load'));
    const load = (sound: string, amp: string) =>
      r.sounds.find((x) => x.sound === sound)!.speakers.find((x) => x.amp === amp)!.loadOhms;
    expect([load('a', 'h1'), load('b', 'h2'), load('c', 'h3')]).toEqual([8, 8, 8]);
    expect(
      found(r, 'impedance')
        .filter((f) => f.subjects[0] === 'h2')
        .map((f) => [f.severity, f.subjects[1], f.sounds.join('')]),
    ).toEqual([['caution', 'sw', 'abcd']]);
  });
  test('where what is not selected sees nothing, every tube amplifier is in danger in some sound', () => {
    const r = whole(rig('open', { promises: [{ id: 'p', type: 'no-tube-unloaded' }] }));
    // One switch cures all of them: one danger, which names each.
    const [danger, ...more] = found(r, 'no-load');
    expect([danger?.sounds.join(''), more]).toEqual(['abcd', []]);
    expect(danger?.subjects).toEqual(expect.arrayContaining(['h1', 'h2', 'h3']));
    expect(r.promises[0]!.breaches).toHaveLength(9);
  });
  test('the front input takes priority over the rear', () => {
    const both = rig('load');
    const r = whole({
      ...both,
      devices: [...both.devices, d('g2', 'guitar-single-coil', 'Second')],
      leads: [...both.leads, l('f', 'g2.out', 'sw.in', 3)],
    });
    expect(at(r, 'a', 'c1').sources).toEqual(['g2']);
  });
});
