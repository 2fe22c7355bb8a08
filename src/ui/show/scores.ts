import type { Scored } from '../../core/show/book';

const keyOf = (rig: string) => `yantrel trainer ${rig}`;

/** Scores that an earlier version kept in this browser alone: they are handed over once, under ids of their own. */
export function takeOldScores(rig: string): Scored[] {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(rig)) ?? '[]') as Omit<
      Scored,
      'id' | 'by'
    >[];
    localStorage.removeItem(keyOf(rig));
    return kept.map(({ at, points, difficulty }) => ({
      id: `s${Date.parse(at)}`,
      at,
      points,
      difficulty,
      by: '',
    }));
  } catch {
    return [];
  }
}
