import { sure } from '../outcome';
import { applyEdits, type Rig } from '../rig';
import { analyse, FixTrial, isSafe } from '../report';
import { device, lead, rigOf, sound } from '../testing/rigs';

/** A guitar split and joined again; `turned` are the sounds in which one way is turned over. */
const split = (turned: readonly string[], everywhere = false): Rig =>
  rigOf(
    [
      device('g', 'guitar-active', 'Guitar'),
      device('f', 'splitter-buffered', 'Fork', {
        settings: { select: 'both', ...(everywhere && { invertB: true }) },
      }),
      device('m', 'mixer-line', 'Mix'),
      device('o', 'console-input', 'House', { settings: { input: 'line' } }),
    ],
    [
      lead('1', 'g.out', 'f.in', 3),
      lead('2', 'f.a', 'm.a', 1),
      lead('3', 'f.b', 'm.b', 1),
      lead('4', 'm.out', 'o.in', 3),
    ],
    ['a', 'b', 'c'].map((id) => ({
      ...sound(id, id.toUpperCase(), []),
      states: { ...(turned.includes(id) && { f: { settings: { invertB: true } } }) },
    })),
  );

const told = (rig: Rig) => analyse(rig).findings.filter((f) => f.rule === 'polarity');

test.each([
  ['in one sound', split(['b'])],
  ['in two of three', split(['a', 'c'])],
  ['in all, by a switch on the box', split([], true)],
])('turned over %s: one press turns it back there, and nothing else is worse', (_, rig) => {
  expect(told(split([]))).toEqual([]);
  const trial = new FixTrial(rig);
  const finding = sure(trial.report.findings.find((f) => f.rule === 'polarity'));
  const [best] = trial.waysOut(finding);
  expect([best?.fix.words, best && isSafe(best.tried)]).toEqual([best?.fix.words, true]);
  const cured = applyEdits(rig, sure(best).fix.edits);
  expect(cured.ok && told(cured.value.rig)).toEqual([]);
});
