import { at } from './sure';

export { at, sure } from './sure';
/** Something wrong with a document: where (a path such as "leads[3].to.jack"), and what to do about it. */
export interface Problem {
  where: string;
  what: string;
}

/** An outcome that may be a failure with its reasons; failures are values, never exceptions. */
export type Outcome<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });
export const refused = (what: string, where = ''): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: [{ where, what }],
});

/** Problems as lines a person can act on. */
export const problemLines = (problems: Problem[]): string[] =>
  problems.map((p) => (p.where ? `${p.where}: ${p.what}` : p.what));

/** Why it failed, in one sentence: the first of its reasons. */
export const reasonOf = (failed: { problems: Problem[] }): string => at(failed.problems, 0).what;
