/** How one case of the trainer went. */
export interface Kept {
  at: string;
  points: number;
  difficulty: string;
}

const MOST = 500;
const keyOf = (rig: string) => `yantrel trainer ${rig}`;

/** Scores of this browser, oldest first. */
export function scoresOf(rig: string): Kept[] {
  try {
    return JSON.parse(localStorage.getItem(keyOf(rig)) ?? '[]') as Kept[];
  } catch {
    return [];
  }
}

export function keepScore(rig: string, score: Kept): void {
  try {
    localStorage.setItem(keyOf(rig), JSON.stringify([...scoresOf(rig), score].slice(-MOST)));
  } catch {
    // A browser that keeps nothing shows no course.
  }
}
