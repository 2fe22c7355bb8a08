import { type Applied, type Patch, patchRig } from './apply';
import type { Rig } from './schema';

interface Step {
  words: string;
  patches: Patch[];
  inverse: Patch[];
}

/** A rig with everything done to it in this session, to go back and forth without limit. */
export interface History {
  rig: Rig;
  past: readonly Step[];
  future: readonly Step[];
}

export const startHistory = (rig: Rig): History => ({ rig, past: [], future: [] });

/** Records an applied edit; what had been undone before it can no longer be redone. */
export const record = (h: History, applied: Applied, words: string): History => ({
  rig: applied.rig,
  past: [...h.past, { words, patches: applied.patches, inverse: applied.inverse }],
  future: [],
});

/** Goes one step back; the same history where there is none. */
export function undo(h: History): History {
  const step = h.past.at(-1);
  return step
    ? { rig: patchRig(h.rig, step.inverse), past: h.past.slice(0, -1), future: [step, ...h.future] }
    : h;
}

/** Goes one step forth again; the same history where there is none. */
export function redo(h: History): History {
  const [step, ...future] = h.future;
  return step ? { rig: patchRig(h.rig, step.patches), past: [...h.past, step], future } : h;
}
