import { touringRig } from '../demo';
import { type Effects, effectsOf, Listener } from './effects';
import { Finder } from './finder/finder';
import { diceOf, DIFFICULTIES, evidenceOf, hide, type Made, makeTest, scoreOf } from './trainer';

const dice = (n: number) => diceOf('test', n);

let effects: Effects;
beforeAll(async () => {
  effects = await effectsOf(new Listener(touringRig));
}, 60_000);

test('what is hidden is noticed as the player says, and as hard as was wished', () => {
  for (const difficulty of ['easy', 'usual', 'hard'] as const) {
    const trouble = hide(touringRig, effects, difficulty, dice(11))!;
    const finder = new Finder(touringRig, effects, evidenceOf(trouble.complaint));
    const { candidates } = finder.find();
    expect(candidates.some((c) => c.faults.includes(trouble.fault))).toBe(true);
    expect(candidates.length).toBe(trouble.alike);
    expect(trouble.alike).toBeLessThanOrEqual(DIFFICULTIES[difficulty].upTo);
  }
});

test('tests are answered as the fault would; those that tell nothing are wasted, with why', () => {
  const trouble = hide(touringRig, effects, 'usual', dice(5))!;
  const finder = new Finder(touringRig, effects, evidenceOf(trouble.complaint));
  const evidence = evidenceOf(trouble.complaint);
  const good = makeTest(touringRig, effects, trouble, evidence, finder.find().next!.test.id)!;
  expect(good.after).toBeLessThan(good.before);
  expect(good.wasted).toBeUndefined();
  const dull = finder
    .allTests()
    .map((t) => makeTest(touringRig, effects, trouble, evidence, t.id)!)
    .find((m) => m.before === m.after)!;
  expect(dull.wasted).toContain(`all ${dull.before} that were possible`);
});

test('as quick as the best strategy is a hundred points, twice as long fifty, a wrong guess none', () => {
  const trouble = hide(touringRig, effects, 'easy', dice(3))!;
  const took = (seconds: number) => [{ test: { seconds } } as Made];
  const { fault, bestSeconds } = trouble;
  expect(scoreOf(effects, trouble, took(bestSeconds), fault).points).toBe(100);
  expect(scoreOf(effects, trouble, took(2 * Math.max(bestSeconds, 1)), fault).points).toBe(50);
  const other = effects.faults.findIndex((f) => f.sort !== effects.faults[fault]!.sort);
  expect(scoreOf(effects, trouble, took(1), other)).toMatchObject({ points: 0, right: false });
});

test('only what nothing tells apart counts as right: of the same sort, on the same things', () => {
  const trouble = hide(touringRig, effects, 'easy', dice(3))!;
  const { sort, subjects } = effects.faults[trouble.fault]!;
  const right = (at: number) => scoreOf(effects, trouble, [], at).right;
  effects.faults.forEach((f, at) => {
    const same = f.sort === sort && f.subjects.join() === subjects.join();
    expect([f.id, right(at)]).toEqual([f.id, same]);
  });
  expect(right(effects.faults.length)).toBe(false);
});
