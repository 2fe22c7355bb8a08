import { type Outcome, problemLines } from '../outcome';

/** What was done, where a test goes on with it; a failure says its reasons. */
export function valueOf<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(problemLines(outcome.problems).join(' '));
  return outcome.value;
}
