import { type Patch, patchRig } from './apply';
import type { History } from './history';
import { type Clash, mergeRigs } from './merge';
import type { Rig } from './schema';

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
