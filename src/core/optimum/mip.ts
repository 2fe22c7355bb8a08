/** A linear term: a factor and a variable. */
export type Term = [factor: number, variable: string];

/** A whole number from 0 to `most`. */
export interface Whole {
  name: string;
  most: number;
}

/**
 * A mixed-integer problem: all variables are 0 or 1 unless they are named in `wholes`, or in `reals`, which run
 * from 0 up.
 */
export interface Mip {
  minimise: Term[];
  rules: { name: string; terms: Term[]; is: '<=' | '>=' | '='; value: number }[];
  binaries: string[];
  reals?: string[];
  wholes?: readonly Whole[];
  /**
   * How far from the best an answer may be: nothing where it is left out. Where all that costs is whole
   * numbers, anything under 1 is exact, and much sooner found.
   */
  gap?: Gap;
  /** How long the solver may take, in seconds of processor; what it has not answered then it failed at. */
  seconds?: number;
}

/** A gap in the unit of the costs, or as a share of them. */
export type Gap = { absolute: number } | { share: number };

export type MipAnswer =
  | { solved: true; cost: number; values: Record<string, number> }
  | { solved: false; why: 'impossible' | 'failed' };

/** An exact solver, given from outside so that the core stays free of it: it reads the LP format and answers. */
export type MipSolver = (
  lp: string,
  gap?: Gap,
  seconds?: number,
) => {
  Status: string;
  ObjectiveValue: number;
  Columns: Record<string, { Primal?: number }>;
};

const terms = (list: readonly Term[]): string =>
  list.length
    ? list.map(([f, v]) => `${f < 0 ? '-' : '+'} ${Math.abs(f)} ${v}`).join(' ')
    : '0 nothing';

/** A solver as it is loaded, as far as it is used here. */
interface Loaded {
  solve: (
    lp: string,
    options: { mip_rel_gap: number; mip_abs_gap: number; time_limit?: number; presolve?: 'off' },
  ) => unknown;
}

/**
 * An exact solver: where no gap is allowed, what it finds is the best, not within a ten-thousandth of it.
 * The solver gives up on some small problems after making them smaller first; they are then given to it
 * as they are, and one that it still gives up on is told as failed.
 */
export const exactly =
  (loaded: Loaded): MipSolver =>
  (lp, gap = { absolute: 0 }, seconds = undefined) => {
    const options = {
      mip_rel_gap: 'share' in gap ? gap.share : 0,
      mip_abs_gap: 'absolute' in gap ? Math.max(gap.absolute, 1e-9) : 0,
      ...(seconds !== undefined && { time_limit: seconds }),
    };
    const attempt = (more: { presolve?: 'off' }): ReturnType<MipSolver> | undefined => {
      try {
        return loaded.solve(lp, { ...options, ...more }) as ReturnType<MipSolver>;
      } catch {
        return undefined;
      }
    };
    return (
      attempt({}) ??
      attempt({ presolve: 'off' }) ?? { Status: 'Failed', ObjectiveValue: 0, Columns: {} }
    );
  };

/** The problem in LP format. Names are kept; they must be plain words. */
export function writeLp({ minimise, rules, binaries, reals = [], wholes = [] }: Mip): string {
  const bounds = [
    ...reals.map((v) => ` ${v} >= 0`),
    ...wholes.map(({ name, most }) => ` 0 <= ${name} <= ${most}`),
  ];
  return [
    'Minimize',
    ` cost: ${terms(minimise)}`,
    'Subject To',
    ...rules
      .filter((r) => r.terms.length)
      .map((r) => ` ${r.name}: ${terms(r.terms)} ${r.is} ${r.value}`),
    ...(bounds.length ? ['Bounds', ...bounds] : []),
    ...(wholes.length ? ['General', ` ${wholes.map((w) => w.name).join(' ')}`] : []),
    ...(binaries.length ? ['Binary', ` ${binaries.join(' ')}`] : []),
    'End',
  ].join('\n');
}

/** Solves a problem exactly. */
export function solveMip(problem: Mip, solver: MipSolver): MipAnswer {
  const answer = solver(writeLp(problem), problem.gap, problem.seconds);
  if (answer.Status === 'Infeasible' || answer.Status === 'Primal infeasible or unbounded')
    return { solved: false, why: 'impossible' };
  if (answer.Status !== 'Optimal') return { solved: false, why: 'failed' };
  return {
    solved: true,
    cost: answer.ObjectiveValue,
    values: Object.fromEntries(Object.entries(answer.Columns).map(([v, c]) => [v, c.Primal ?? 0])),
  };
}
