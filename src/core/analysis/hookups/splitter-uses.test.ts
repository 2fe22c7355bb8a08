import { device as d, lead as l, rigOf, sound as s } from '../../testing/rigs';
import { type Report } from '../../report/report';
import { sheet, whole, rules, found, at, fixed } from './by-hand';

describe('the uses of a splitter', () => {
  const split = (kind: string, settings = {}, wet = false) =>
    rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('s', kind, 'Split', { settings }),
        d('a', 'combo-tube', 'A'),
        d('b', 'combo-tube', 'B'),
        ...(wet ? [d('dly', 'delay', 'Delay', { engaged: true, settings: { mix: 10 } })] : []),
      ],
      [
        l('1', 'g.out', 's.in', 3),
        l('2', 's.a', 'a.in', 5),
        ...(wet
          ? [l('3', 's.b', 'dly.in', 1), l('4', 'dly.out', 'b.in', 5)]
          : [l('3', 's.b', 'b.in', 5)]),
      ],
      [s('x', 'X', [])],
    );
  test('select: one plays, the other is silent without complaint', () => {
    const r = whole(split('splitter-isolated', { select: 'a' }));
    expect(r.sounds[0]!.destinations.map((x) => x.levelDbu !== null)).toEqual([true, false]);
    expect(rules(r)).not.toContain('silent');
  });
  test(
    'both: passive loads the source twice and closes a hum loop; isolated does neither; ' +
      'polarity is checked',
    () => {
      const passive = whole(split('splitter-passive'));
      const isolated = whole(split('splitter-isolated'));
      const loss = (r: Report) => r.sounds[0]!.tones.find((t) => t.bare)!.at5kHzDb;
      expect(loss(passive)).toBeLessThan(loss(isolated));
      expect(rules(passive)).toContain('hum-loop');
      expect(rules(isolated)).not.toContain('hum-loop');
      const turned = split('splitter-buffered', { invertB: true });
      const r = whole(turned);
      expect(found(r, 'polarity')[0]!.severity).toBe('fault');
      expect(rules(whole(fixed(turned, r, 'polarity')))).not.toContain('polarity');
    },
  );
  test('wet and dry: the dry side stays dry, the wet side has echoes only', () => {
    const r = whole(split('splitter-isolated', {}, true));
    expect(at(r, 'x', 'a').latencyMs).toBe(0);
    expect(at(r, 'x', 'b').route).toContain('dly');
    expect(rules(r)).not.toContain('comb');
  });
  test('two instruments into one: selecting is clean, a passive blend loads both, by hand', () => {
    const combine = (select: string) =>
      rigOf(
        [
          d('g', 'guitar-active', 'G', sheet({ outputOhms: 10_000 })),
          d('h', 'guitar-active', 'H', sheet({ outputOhms: 30_000 })),
          d('s', 'combiner-passive', 'Join', { settings: { select } }),
          d('loop', 'looper', 'Looper', { engaged: true, ...sheet({ inputOhms: 1e8 }) }),
          d('a', 'combo-tube', 'A'),
        ],
        [
          l('1', 'g.out', 's.a', 0),
          l('2', 'h.out', 's.b', 0),
          l('3', 's.out', 'loop.in', 0),
          l('4', 'loop.out', 'a.in', 0),
        ],
      );
    expect(rules(whole(combine('a')))).not.toContain('blend-loading');
    const blend = whole(combine('both'));
    // 10 kΩ against 30 kΩ: 20·log10(30/40) and 20·log10(10/40).
    expect(found(blend, 'blend-loading')[0]!.why).toContain('G loses 2.5 dB and H loses 12.0 dB');
    expect(rules(whole(fixed(combine('both'), blend, 'blend-loading')))).not.toContain(
      'blend-loading',
    );
  });
  test('a tuner tap: the main line is metal only, the tuner hears at all times, engaged it mutes', () => {
    const tap = rigOf(
      [
        d('g', 'guitar-humbucker', 'G'),
        d('s', 'splitter-tuner', 'Tap'),
        d('t', 'tuner-rack', 'Tuner'),
        d('f', 'fuzz-low-impedance', 'Fuzz', { engaged: true }),
        d('a', 'combo-tube', 'A'),
      ],
      [
        l('1', 'g.out', 's.in', 3),
        l('2', 's.tuner', 't.in', 1),
        l('3', 's.out', 'f.in', 1),
        l('4', 'f.out', 'a.in', 5),
      ],
      [s('x', 'X', []), s('m', 'Mute', ['s'])],
    );
    const r = whole(tap);
    expect(rules(r)).not.toContain('bare-pickup');
    expect([at(r, 'x', 't'), at(r, 'm', 't')].every((x) => x.levelDbu)).toBe(true);
    expect(at(r, 'm', 'a').levelDbu).toBeNull();
    expect(rules(r)).not.toContain('loading');
  });
});
