import type { Applied, Patch } from './apply';
import { settle } from './find';
import type { Rig } from './schema';

interface Step {
  words: string;
  patches: Patch[];
  inverse: Patch[];
  /** The documents on both sides of the step, to take it back when others have changed more since. */
  before: Rig;
  after: Rig;
  /** What goes on for a while, such as a knob being turned: its steps are one. */
  going?: string;
}

/** A rig with everything that was done to it here in this session, to go back and forth without limit. */
export interface History {
  rig: Rig;
  past: readonly Step[];
  future: readonly Step[];
}

export function startHistory(rig: Rig): History {
  settle(rig);
  return { rig, past: [], future: [] };
}

/**
 * Records an applied edit; what had been undone before it can no longer be redone. `going`: one step
 * with the last one of the same going on, where nothing came between.
 */
export const record = (h: History, applied: Applied, words: string, going?: string): History => {
  const { rig: after, patches, inverse } = applied;
  const last = h.past.at(-1);
  const isOne = going !== undefined && last?.going === going && last.after === h.rig;
  const step: Step = isOne
    ? {
        ...last,
        words,
        patches: [...last.patches, ...patches],
        inverse: [...inverse, ...last.inverse],
        after,
      }
    : { words, patches, inverse, before: h.rig, after, ...(going !== undefined && { going }) };
  return { rig: after, past: [...(isOne ? h.past.slice(0, -1) : h.past), step], future: [] };
};

/** The same steps on a document that somebody else changed. */
export function onTop(h: History, rig: Rig): History {
  settle(rig);
  return { ...h, rig };
}
