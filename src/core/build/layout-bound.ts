import { at as entryAt } from '../outcome';
import { type Mip, type MipSolver, solveMip, type Term } from '../optimum/mip';
import { type Item, type Model, TURNS } from './board-model';
import { DROP } from './board-row';

/** The two axes of a board: how long it is, and what of an item lies along it. */
const AXES = [
  { axis: 'x', long: 'width', tip: 'tipX' },
  { axis: 'y', long: 'depth', tip: 'tipY' },
] as const;

/**
 * Lead in mm that no layout of these items on this board goes below, proven: what the leads between
 * them take as the crow walks where things may stand in one another, as a linear problem. A thing
 * that may be turned counts as any mixture of its turns, which makes the bound less and never wrong.
 * Leads that leave the board may end at its edge and count nothing; what goes under the deck and up
 * again counts at least that.
 *
 * @returns mm; 0 where the solver gives nothing
 */
export function layoutBound(model: Model, mayTurn: boolean, solver: MipSolver): number {
  const { items, runs, board } = model;
  const inner = runs.filter((r) => r.b >= 0 && r.a !== r.b);
  const problem: Mip = { minimise: [], rules: [], binaries: [], reals: [] };
  const real = (name: string) => {
    problem.reals?.push(name);
    return name;
  };
  const turnsOf = (i: number): Item[] => {
    const item = entryAt(items, i);
    return mayTurn && !item.pinned ? TURNS.map((t) => model.asTurned(i, t)) : [item];
  };
  const rule = (name: string, terms: Term[], is: '<=' | '=', value: number) =>
    problem.rules.push({ name, terms, is, value });
  const here = new Set(inner.flatMap((r) => [r.a, r.b]));
  for (const i of here) {
    const turns = turnsOf(i);
    const shares = turns.map((_, t): Term => [1, real(`t${i}x${t}`)]);
    rule(`one${i}`, shares, '=', 1);
    const item = entryAt(items, i);
    for (const { axis, long } of AXES) {
      const corner: Term = [1, real(`${axis}${i}`)];
      if (item.pinned) rule(`pin${axis}${i}`, [corner], '=', item.device.at?.[axis] ?? 0);
      else
        rule(
          `in${axis}${i}`,
          [corner, ...turns.map((b, t): Term => [b[long], `t${i}x${t}`])],
          '<=',
          board[long],
        );
    }
  }
  let fixed = 0;
  inner.forEach((run, k) => {
    const [a, b] = [entryAt(items, run.a), entryAt(items, run.b)];
    if (a.under || b.under) fixed += 2 * DROP + (a.under === b.under ? 0 : DROP);
    for (const { axis, tip } of AXES) {
      const end = (i: number, socket: number, sign: 1 | -1): Term[] => [
        [sign, `${axis}${i}`],
        ...turnsOf(i).map((body, t): Term => [
          sign * entryAt(body.sockets, socket)[tip],
          `t${i}x${t}`,
        ]),
      ];
      const mm = real(`${axis}mm${k}`);
      problem.minimise.push([1, mm]);
      for (const sign of [1, -1] as const)
        rule(
          `${axis}far${k}${sign > 0 ? 'a' : 'b'}`,
          [
            [-1, mm],
            ...end(run.a, run.aSocket, sign),
            ...end(run.b, run.bSocket, sign > 0 ? -1 : 1),
          ],
          '<=',
          0,
        );
    }
  });
  if (!inner.length) return 0;
  const answer = solveMip(problem, solver);
  return fixed + (answer.solved ? Math.max(0, answer.cost) : 0);
}
