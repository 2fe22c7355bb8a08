import { type Rig } from '../../rig';
import { device as d, lead as l, rigOf } from '../../testing/rigs';
import { sheet, whole, rules, found } from './by-hand';

describe('speakers, by hand', () => {
  const line = (cabs: number[], how: 'parallel' | 'series', tap: number, watts = 50) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('h', 'head-tube', 'H', sheet({ tapOhms: tap, watts })),
        ...(how === 'series' ? [d('box', 'speaker-series', 'Box')] : []),
        ...cabs.map((ohms, i) => d(`c${i}`, 'cabinet', `C${i}`, sheet({ ohms }))),
      ],
      [
        l('1', 'g.out', 'h.in', 3),
        ...(how === 'series'
          ? [
              l('2', 'h.speaker', 'box.in', 1, 'speaker'),
              ...cabs.map((_, i) => l(`c${i}`, `box.${'ab'[i]}`, `c${i}.in`, 1, 'speaker')),
            ]
          : cabs.map((_, i) =>
              l(`c${i}`, i ? `c${i - 1}.link` : 'h.speaker', `c${i}.in`, 1, 'speaker'),
            )),
      ],
    );
  test.each([
    [[16, 16], 'parallel', 8, 8, undefined],
    [[8, 16], 'parallel', 4, 5.33, 'caution'],
    [[8, 8], 'series', 16, 16, undefined],
    [[4], 'parallel', 8, 4, 'caution'],
    [[16], 'parallel', 4, 16, 'danger'],
    [[16, 16, 16], 'parallel', 8, 5.33, 'caution'],
  ] as const)('cabinets of %j Ω in %s on a tap of %d Ω: %d Ω', (cabs, how, tap, ohms, severity) => {
    const r = whole(line([...cabs], how, tap));
    expect(r.sounds[0]!.speakers[0]!.loadOhms).toBeCloseTo(ohms, 2);
    expect(found(r, 'impedance')[0]?.severity).toBe(severity);
  });
  test(
    'power is shared by impedance; a cabinet under the power is a fault, under one and ' +
      'a half times a caution',
    () => {
      const power = (watts: number) =>
        found(whole(line([8, 16], 'parallel', 5, watts)), 'speaker-power').map((f) => [
          f.subjects[0],
          f.severity,
        ]);
      // 8 Ω takes two thirds, 16 Ω one third; both are rated 120 W.
      expect(power(100)).toEqual([]);
      expect(power(150)).toEqual([['c0', 'caution']]);
      expect(power(300)).toEqual([
        ['c0', 'fault'],
        ['c1', 'caution'],
      ]);
    },
  );
  test('one cabinet pulled out of a series box leaves no load', () => {
    const rig = line([8, 8], 'series', 16);
    expect(rules(whole({ ...rig, leads: rig.leads.filter((x) => x.id !== 'c1') }))).toContain(
      'no-load',
    );
  });
  test('two amplifiers on one cabinet are a danger; a switcher that connects one at a time is not', () => {
    const two = rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('s', 'splitter-buffered', 'S'),
        d('a', 'head-tube', 'A'),
        d('b', 'head-tube', 'B'),
        d('c', 'cabinet', 'C'),
      ],
      [
        l('1', 'g.out', 's.in', 3),
        l('2', 's.a', 'a.in', 1),
        l('3', 's.b', 'b.in', 1),
        l('4', 'a.speaker', 'c.in', 1, 'speaker'),
        l('5', 'b.speaker', 'c.link', 1, 'speaker'),
      ],
    );
    expect(found(whole(two), 'two-amps')[0]!.severity).toBe('danger');
  });
  test('the lead’s own resistance, by the formula', () => {
    const rig = line([8], 'parallel', 8);
    const long: Rig = {
      ...rig,
      leads: rig.leads.map((x) => (x.type === 'speaker' ? { ...x, metres: 30, squareMm: 1.5 } : x)),
    };
    expect(whole(long).sounds[0]!.speakers[0]!.lossDb).toBeCloseTo(
      20 * Math.log10(8 / (8 + 2 * 30 * 0.0115)),
      2,
    );
    expect(rules(whole(long))).toContain('speaker-lead-loss');
  });
});
