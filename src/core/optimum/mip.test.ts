import fc from 'fast-check';
import loadHighs from 'highs';
import { exactly, type Mip, type MipSolver, solveMip, type Term, writeLp } from './mip';

let solver: MipSolver;
beforeAll(async () => {
  const highs = await loadHighs({});
  solver = exactly(highs);
});

const NAMES = ['a', 'b', 'c', 'd', 'e'];
/** How high the first of them may go; the others are 0 or 1. */
const WHOLES = [2, 3];
const factors = fc.array(fc.integer({ min: -9, max: 9 }), {
  minLength: NAMES.length,
  maxLength: NAMES.length,
});
const termsOf = (list: readonly number[]): Term[] =>
  list.map((f, i): Term => [f, `x_${NAMES[i]!}`]);
const anyProblem: fc.Arbitrary<Mip> = fc
  .record({
    cost: factors,
    rules: fc.array(
      fc.tuple(
        factors,
        fc.constantFrom('<=' as const, '>=' as const),
        fc.integer({ min: -12, max: 12 }),
      ),
      { maxLength: 3 },
    ),
  })
  .map(({ cost, rules }) => ({
    minimise: termsOf(cost),
    binaries: NAMES.slice(WHOLES.length).map((n) => `x_${n}`),
    wholes: WHOLES.map((most, i) => ({ name: `x_${NAMES[i]!}`, most })),
    rules: rules.map(([f, is, value], i) => ({ name: `r${i}`, terms: termsOf(f), is, value })),
  }));

/** The cheapest of all choices, by trying every one; nothing where none is allowed. */
function tried({ minimise, rules }: Mip): number | undefined {
  let best: number | undefined;
  const most = NAMES.map((_, i) => WHOLES[i] ?? 1);
  const all = most.reduce<number[][]>(
    (lists, m) => lists.flatMap((l) => Array.from({ length: m + 1 }, (_, v) => [...l, v])),
    [[]],
  );
  for (const values of all) {
    const value = (list: readonly Term[]) =>
      list.reduce((s, [f, v]) => s + f * values[NAMES.indexOf(v.slice(2))]!, 0);
    if (
      !rules.every((r) =>
        r.is === '<='
          ? value(r.terms) <= r.value
          : r.is === '>='
            ? value(r.terms) >= r.value
            : value(r.terms) === r.value,
      )
    )
      continue;
    best = Math.min(best ?? Infinity, value(minimise));
  }
  return best;
}

test('the answer is the cheapest of all choices, and impossible just where none is allowed', () => {
  fc.assert(
    fc.property(anyProblem, (problem) => {
      const best = tried(problem);
      const answer = solveMip(problem, solver);
      if (best === undefined) return !answer.solved && answer.why === 'impossible';
      return (
        answer.solved &&
        Math.abs(answer.cost - best) < 1e-6 &&
        Object.values(answer.values).every((v) => Math.abs(v - Math.round(v)) < 1e-6)
      );
    }),
    { numRuns: 60 },
  );
});

test('a problem is written in LP format, with signs, kinds of variables and an end', () => {
  const lp = writeLp({
    minimise: [
      [2, 'x'],
      [-3, 'y'],
    ],
    rules: [
      {
        name: 'room',
        terms: [
          [1, 'x'],
          [1, 'y'],
        ],
        is: '<=',
        value: 1,
      },
      { name: 'empty', terms: [], is: '<=', value: 1 },
    ],
    binaries: ['x', 'y'],
    reals: ['z'],
    wholes: [{ name: 'n', most: 4 }],
  });
  expect(lp.split('\n')).toEqual([
    'Minimize',
    ' cost: + 2 x - 3 y',
    'Subject To',
    ' room: + 1 x + 1 y <= 1',
    'Bounds',
    ' z >= 0',
    ' 0 <= n <= 4',
    'General',
    ' n',
    'Binary',
    ' x y',
    'End',
  ]);
});

test('a solver that gives up is told apart from a problem that has no answer', () => {
  const problem: Mip = { minimise: [[1, 'x']], rules: [], binaries: ['x'] };
  expect(
    solveMip(problem, () => ({ Status: 'Time limit reached', ObjectiveValue: 0, Columns: {} })),
  ).toEqual({ solved: false, why: 'failed' });
  expect(
    solveMip(problem, () => ({ Status: 'Infeasible', ObjectiveValue: 0, Columns: {} })),
  ).toEqual({ solved: false, why: 'impossible' });
});

test('a problem that the solver gives up on is given to it once more as it is; then it is told as failed', () => {
  const asked: unknown[] = [];
  const givingUp = (times: number) =>
    exactly({
      solve: (_, options) => {
        asked.push(options.presolve);
        if (asked.length <= times) throw new Error('error -1');
        return { Status: 'Optimal', ObjectiveValue: 3, Columns: { x: { Primal: 1 } } };
      },
    });
  const problem: Mip = { minimise: [[3, 'x']], rules: [], binaries: ['x'] };
  expect(solveMip(problem, givingUp(1))).toEqual({ solved: true, cost: 3, values: { x: 1 } });
  expect(asked).toEqual([undefined, 'off']);
  asked.length = 0;
  expect(solveMip(problem, givingUp(2))).toEqual({ solved: false, why: 'failed' });
});
