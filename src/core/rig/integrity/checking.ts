import { type Kind, KINDS } from '../../kinds';
import type { Device, Rig } from '../schema';
import { anyOf } from '../../units';

/** A device of the rig with its kind; those of a kind that is not there are missing. */
export type Known = ReadonlyMap<string, { device: Device; kind: Kind }>;

/** Says what is wrong, and where: a path such as `leads[3].to.jack`. */
export type Say = (where: string, what: string) => void;

/** One thing that is looked at in a whole rig. */
export type Check = (rig: Rig, devices: Known, say: Say) => void;

/** Ids that a list uses twice. */
export function usedTwice(where: string, list: readonly { id: string }[] | undefined, say: Say) {
  const ids = new Set<string>();
  (list ?? []).forEach((x, row) => {
    if (ids.has(x.id))
      say(`${where}[${row}].id`, `the id "${x.id}" is used twice; give one of the two another`);
    ids.add(x.id);
  });
}

/** Kinds that a word for one may have meant. */
export function nearest(word: string): string {
  const parts = word
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter((p) => p.length > 2);
  const close = KINDS.filter((k) => parts.some((p) => k.id.includes(p))).slice(0, 4);
  return close.length
    ? `did you mean ${anyOf(close.map((k) => `"${k.id}"`))}?`
    : 'the kinds are listed in docs/kinds.md';
}
