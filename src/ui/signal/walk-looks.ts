'use client';

/** A device being moved, and the lead it would go into. */
export interface Moving {
  device: string;
  lead: string | null;
}

/** What differs from another sound, in words by device, and the change in level at each station. */
export interface Compared {
  words: ReadonlyMap<string, string[]>;
  levelDb: (station: string) => number | null;
}

/** How a strip stands, in words. */
export const stateWords = {
  engaged: 'engaged',
  through: 'bypassed',
  muted: 'muted',
  unused: 'not in use',
} as const;
