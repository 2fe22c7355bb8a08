import type { Kind } from '../../core/kinds';
import type { Character, Way } from '../../core/rig';

/** Ways to be heard, as a question's answers. */
export const WAY_WORDS: Record<Way, string> = {
  head: 'Tube head and cabinet on stage',
  combo: 'Tube combo on stage',
  stage: 'A loudspeaker on stage, no amplifier',
  house: 'Front of house',
  'in-ears': 'The player’s in-ears',
  recorder: 'A recorder',
};
/** What a destination of that way is called at first. */
export const WAY_NAMES: Record<Way, string> = {
  head: 'Head',
  combo: 'Combo',
  stage: 'Wedge',
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

/** Kinds in groups, for a list to choose from. */
export function kindOptions(
  kinds: readonly Kind[],
): { group: string; items: { value: string; label: string }[] }[] {
  const groups = new Map<string, { value: string; label: string }[]>();
  for (const k of kinds)
    groups.set(k.family, [...(groups.get(k.family) ?? []), { value: k.id, label: k.name }]);
  return [...groups].map(([group, items]) => ({ group, items }));
}
