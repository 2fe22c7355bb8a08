import { type Applied, type Patch, patchRig } from './apply';
import { settle } from './find';
import { type Clash, mergeRigs } from './merge';
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

/** A step that was gone, back or forth. */
export interface Gone {
  history: History;
  words: string;
  /** What changed; nothing where more has to be looked at than what the step itself had changed. */
  patches: Patch[] | undefined;
  /** Where others changed the same since: then nothing was changed, and the step is given up. */
  blocked: readonly Clash[];
}

/**
 * Takes back the last step that was made here, whatever others did since: what it changed is changed
 * back, and all else stays. Nothing where there is no step.
 */
export function undo(h: History): Gone | undefined {
  const step = h.past.at(-1);
  if (!step) return undefined;
  const rest = { past: h.past.slice(0, -1), future: h.future };
  return go(h, rest, { ...rest, future: [step, ...h.future] }, step.words, {
    from: step.after,
    to: step.before,
    patches: step.inverse,
  });
}

/** Does the step again that was taken back last. */
export function redo(h: History): Gone | undefined {
  const [step, ...future] = h.future;
  if (!step) return undefined;
  const rest = { past: h.past, future };
  return go(h, rest, { ...rest, past: [...h.past, step] }, step.words, {
    from: step.before,
    to: step.after,
    patches: step.patches,
  });
}

type Steps = Pick<History, 'past' | 'future'>;

function go(
  h: History,
  without: Steps,
  done: Steps,
  words: string,
  way: { from: Rig; to: Rig; patches: Patch[] },
): Gone {
  if (h.rig === way.from) {
    const { patches } = way;
    return { history: { ...done, rig: patchRig(h.rig, patches) }, words, patches, blocked: [] };
  }
  const { rig, clashes } = mergeRigs(way.from, way.to, h.rig);
  return clashes.length
    ? { history: { ...without, rig: h.rig }, words, patches: [], blocked: clashes }
    : { history: { ...done, rig }, words, patches: undefined, blocked: [] };
}
