import type { Kind } from '../../core/kinds';
import type { Character, PromiseType, Way } from '../../core/rig';

/** Ways to be heard, as a question's answers. */
export const WAY_WORDS: Record<Way, string> = {
  head: 'Tube head and cabinet on stage',
  combo: 'Tube combo on stage',
  house: 'Front of house',
  'in-ears': 'The player’s in-ears',
  recorder: 'A recorder',
};
/** What a destination of that way is called at first. */
export const WAY_NAMES: Record<Way, string> = {
  head: 'Head',
  combo: 'Combo',
  house: 'House',
  'in-ears': 'In-ears',
  recorder: 'Recorder',
};
export const CHARACTER_WORDS: Record<Character, string> = {
  clean: 'clean',
  edge: 'edge of breakup',
  crunch: 'crunch',
  saturated: 'saturated',
  special: 'a special',
};

/** Promises to choose from, each as a sentence to be filled in. */
export const PROMISE_WORDS: Record<PromiseType, string> = {
  hears: 'a destination always hears a source',
  'never-hears': 'a destination never hears a source',
  'moves-only': 'a control moves some destinations and nothing else',
  'control-moves-only': 'a pedal or switch with all it moves, and nothing else',
  stereo: 'a destination is stereo',
  'levels-within': 'levels of sounds lie close together',
  'tuner-hears': 'the tuner always hears an instrument',
  'muted-silent': 'muted means silent everywhere',
  'tails-survive': 'tails survive a change of sound',
  'one-press': 'one press from one sound to another',
  'no-tube-unloaded': 'no tube amplifier without a load',
  'noise-under': 'signal-to-noise stays over a figure',
  'latency-under': 'latency stays under a figure',
  survives: 'if a device dies, sound comes back',
};

/** Kinds in groups, for a list to choose from. */
export function kindOptions(
  kinds: readonly Kind[],
): { group: string; items: { value: string; label: string }[] }[] {
  const groups = new Map<string, { value: string; label: string }[]>();
  for (const k of kinds)
    groups.set(k.family, [...(groups.get(k.family) ?? []), { value: k.id, label: k.name }]);
  return [...groups].map(([group, items]) => ({ group, items }));
}
