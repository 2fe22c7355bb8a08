import type { FixTrial } from '../report';
import type { Edit } from '../rig/edits';

/**
 * What edits do to a rig that speaks against proposing them, on a copy. What is about lengths, boards
 * and racks does not: whoever moves a pedal lays the board out anew, and is told so.
 */
export function harmOf(trial: FixTrial, edits: readonly Edit[]): string[] {
  if (!edits.length) return [];
  const { breaks, bearable } = trial.outcome(edits);
  return breaks.filter((b) => !bearable.includes(b));
}

/** Several things that would break, as part of a sentence. */
export const harmWords = (breaks: readonly string[]): string =>
  breaks.map((b) => b.replace(/\.$/, '')).join('; ');

/** What was left out of a proposal, and what it would have broken. */
export interface LeftOut<T> {
  one: T;
  breaks: readonly string[];
}

/**
 * As many of a list as can be had without harm: while something breaks, that one is left out without
 * which least breaks. `breaksOf` says in words what some of them together break on a copy of the rig.
 */
export function withoutHarm<T>(
  all: readonly T[],
  breaksOf: (some: readonly T[]) => readonly string[],
): { kept: readonly T[]; left: LeftOut<T>[] } {
  const left: LeftOut<T>[] = [];
  let kept = all;
  let breaks = kept.length ? breaksOf(kept) : [];
  while (kept.length && breaks.length) {
    const before = breaks;
    const best = kept
      .map((one) => {
        const some = kept.filter((o) => o !== one);
        return { one, some, breaks: some.length ? breaksOf(some) : [] };
      })
      .reduce((a, b) => (b.breaks.length < a.breaks.length ? b : a));
    const saved = before.filter((b) => !best.breaks.includes(b));
    left.push({ one: best.one, breaks: saved.length ? saved : before });
    ({ some: kept, breaks } = best);
  }
  return { kept, left };
}
