/** A linear term: a factor and a variable. */
export type Term = [factor: number, variable: string];

/** A mixed-integer problem: all variables are 0 or 1 unless they are named in `reals`, which run from 0 up. */
export interface Mip {
  minimise: Term[];
  rules: { name: string; terms: Term[]; is: '<=' | '>=' | '='; value: number }[];
  binaries: string[];
  reals?: string[];
}

export type MipAnswer =
  | { solved: true; cost: number; values: Record<string, number> }
  | { solved: false; why: 'impossible' | 'failed' };

/** An exact solver, given from outside so that the core stays free of it: it reads the LP format and answers. */
export type MipSolver = (lp: string) => {
  Status: string;
  ObjectiveValue: number;
  Columns: Record<string, { Primal?: number }>;
};

const terms = (list: readonly Term[]): string =>
  list.length
    ? list.map(([f, v]) => `${f < 0 ? '-' : '+'} ${Math.abs(f)} ${v}`).join(' ')
    : '0 nothing';

/** The problem in LP format. Names are kept; they must be plain words. */
export function writeLp({ minimise, rules, binaries, reals = [] }: Mip): string {
  return [
    'Minimize',
    ` cost: ${terms(minimise)}`,
    'Subject To',
    ...rules
      .filter((r) => r.terms.length)
      .map((r) => ` ${r.name}: ${terms(r.terms)} ${r.is} ${r.value}`),
    ...(reals.length ? ['Bounds', ...reals.map((v) => ` ${v} >= 0`)] : []),
    ...(binaries.length ? ['Binary', ` ${binaries.join(' ')}`] : []),
    'End',
  ].join('\n');
}

/** Solves a problem exactly. */
export function solveMip(problem: Mip, solver: MipSolver): MipAnswer {
  const answer = solver(writeLp(problem));
  if (answer.Status === 'Infeasible' || answer.Status === 'Primal infeasible or unbounded')
    return { solved: false, why: 'impossible' };
  if (answer.Status !== 'Optimal') return { solved: false, why: 'failed' };
  return {
    solved: true,
    cost: answer.ObjectiveValue,
    values: Object.fromEntries(Object.entries(answer.Columns).map(([v, c]) => [v, c.Primal ?? 0])),
  };
}
