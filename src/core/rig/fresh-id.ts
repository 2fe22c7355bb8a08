import { ID, isReserved } from './id-form';

/**
 * An id that is not in use yet, made from a word: "amber-drive", then "amber-drive-2".
 *
 *     freshId('Amber Drive', rig.devices.map((d) => d.id))
 */
export function freshId(word: string, taken: ReadonlySet<string> | Iterable<string>): string {
  const used = taken instanceof Set ? taken : new Set(taken);
  const base =
    word
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 40) || 'item';
  const free = (id: string) => !used.has(id) && !isReserved(id);
  if (free(base)) return base;
  for (let n = 2; ; n++) if (free(`${base}-${n}`)) return `${base}-${n}`;
}

/** An id as a file gives it, where it is one and nothing has it yet; else a fresh one made from a word. */
export const givenId = (wanted: string | undefined, word: string, taken: Set<string>): string =>
  wanted && ID.test(wanted) && !isReserved(wanted) && !taken.has(wanted)
    ? wanted
    : freshId(wanted || word, taken);

const ids = new WeakMap<readonly { id: string }[], Set<string>>();

/** The ids of a list of devices or leads, gathered once. */
export function idsOf(list: readonly { id: string }[]): ReadonlySet<string> {
  let known = ids.get(list);
  if (!known) ids.set(list, (known = new Set(list.map((x) => x.id))));
  return known;
}

/** A name that nothing has yet: the wanted one, or that and a number that tells it apart. */
export function freeName(wanted: string, taken: readonly string[]): string {
  let name = wanted;
  for (let n = 2; taken.includes(name); n++) name = `${wanted} ${n}`;
  return name;
}
