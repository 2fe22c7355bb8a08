import { analyse } from '../report';
import type { Rig } from '../rig';
import { device as d, lead as l, rigOf, sound as s } from '../testing/rigs';

const told = (rig: Rig, rule: string) => analyse(rig).findings.filter((f) => f.rule === rule);

/** One instrument through two boxes side by side, into one amplifier or into two. */
const side = (
  [a, b]: readonly [string, string],
  { knobs = {}, off = '', apart = false }: { knobs?: object; off?: string; apart?: boolean } = {},
): Rig =>
  rigOf(
    [
      d('g', 'guitar-humbucker', 'Guitar'),
      d('fork', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
      d('a', a, 'Alder', { settings: { drive: 7 } }),
      d('b', b, 'Birch', { settings: { drive: 7, ...knobs } }),
      d('mix', 'mixer-line', 'Joiner'),
      d('amp', 'combo-tube', 'Combo'),
      d('amp2', 'combo-tube', 'Other combo'),
    ],
    [
      l('1', 'g.out', 'fork.in', 3),
      l('2', 'fork.a', 'a.in', 0.3),
      l('3', 'fork.b', 'b.in', 0.3),
      ...(apart
        ? [l('4', 'a.out', 'amp.in', 3), l('5', 'b.out', 'amp2.in', 3)]
        : [
            l('4', 'a.out', 'mix.a', 0.3),
            l('5', 'b.out', 'mix.b', 0.3),
            l('6', 'mix.out', 'amp.in', 3),
          ]),
    ],
    [
      s(
        'x',
        'X',
        ['g', 'a', 'b'].filter((id) => id !== off),
      ),
    ],
  );

test('two alike side by side are advised against, by name', () => {
  const [f] = told(side(['drive-mid', 'drive-mid']), 'twin-dirt');
  expect(f).toMatchObject({ severity: 'advice', subjects: ['a', 'b'] });
  expect(f!.what).toBe('Alder and Birch run side by side and sound alike.');
});

test.each([
  ['of unlike kinds', side(['drive-mid', 'fuzz'])],
  ['of unlike tone', side(['drive-mid', 'drive-mid'], { knobs: { tone: 9 } })],
  ['of unlike dirt', side(['drive-mid', 'drive-mid'], { knobs: { drive: 1 } })],
  ['one switched off', side(['drive-mid', 'drive-mid'], { off: 'b' })],
  ['into two amplifiers', side(['drive-mid', 'drive-mid'], { apart: true })],
  ['clean boxes', side(['boost', 'boost'])],
  ['amplifiers, not pedals', side(['amp-block', 'amp-block'])],
])('%s: not told', (_, rig) => expect(told(rig, 'twin-dirt')).toEqual([]));

/** A modeler with an amp block into a combo, by its input or by its return. */
const block = (jack: string, engaged = true): Rig =>
  rigOf(
    [
      d('g', 'guitar-humbucker', 'Guitar'),
      d('m', 'modeler-floor', 'Modeler'),
      d('amp', 'amp-block', 'Modelled amp', { host: 'm' }),
      d('c', 'combo-tube-loop', 'Combo'),
    ],
    [
      l('1', 'g.out', 'm.in', 3),
      l('2', 'm.out', `c.${jack}`, 3),
      l('i1', 'm.fromIn', 'amp.in', 0, 'inside'),
      l('i2', 'amp.out', 'm.toOut', 0, 'inside'),
    ],
    [s('x', 'X', [], { amp: { engaged } })],
  );

test('a modelled amplifier into the input of a real one is told; into its return, or bypassed, not', () => {
  const [f] = told(block('in'), 'two-preamps');
  expect(f).toMatchObject({ severity: 'advice', subjects: ['amp', 'c'] });
  expect(f!.fix!.words).toBe('Bypass Modelled amp here');
  expect(told(block('return'), 'two-preamps')).toEqual([]);
  expect(told(block('in', false), 'two-preamps')).toEqual([]);
});
