/**
 * What a sound, or the rig as a whole, loses and gains by a change, in words; `worse` and `better` are
 * findings that come and go, `otherwise` is what is merely different.
 */
export interface Difference {
  lost: string[];
  gained: string[];
  worse: string[];
  better: string[];
  otherwise: string[];
}

/** Whether anything is different. */
export const isAny = (d: Difference): boolean =>
  [d.lost, d.gained, d.worse, d.better, d.otherwise].some((words) => words.length > 0);
