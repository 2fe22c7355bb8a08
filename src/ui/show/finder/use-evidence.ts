import { useEffect, useState } from 'react';
import type { Evidence } from '../../../core/show';

/** What is known of a fault that is looked for, and when it began; kept in this browser until it is found. */
export interface Hunt extends Evidence {
  answers: { test: string; answer: string; words: string; sound: string }[];
  began: string;
  /** What was found last, and what to buy for it. */
  found?: { words: string; spares: string[] };
}

const keyOf = (rig: string) => `yantrel hunt ${rig}`;

export const beginHunt = (sound: string): Hunt => ({
  sound,
  noticed: [],
  answers: [],
  cannot: [],
  began: new Date().toISOString(),
});

/** A hunt that another part begins: a step of the line check that failed. */
export function leaveHunt(rig: string, hunt: Hunt): void {
  try {
    localStorage.setItem(keyOf(rig), JSON.stringify(hunt));
  } catch {
    // The finder then begins empty.
  }
}

/** The hunt that is on, through a reload too. */
export function useHunt(rig: string, sound: string): [Hunt, (change: Partial<Hunt>) => void] {
  const [hunt, setHunt] = useState<Hunt>(() => {
    try {
      const kept = localStorage.getItem(keyOf(rig));
      if (kept) return JSON.parse(kept) as Hunt;
    } catch {
      // Nothing sensible was kept.
    }
    return beginHunt(sound);
  });
  useEffect(() => leaveHunt(rig, hunt), [rig, hunt]);
  return [hunt, (change) => setHunt((h) => ({ ...h, ...change }))];
}
