import type { Rig } from '../rig/schema';

/** Keys of words, of what persons wrote, and of what has ids of its own, which stay as they are. */
const STAY = new Set([
  ...['clock', 'kind', 'name', 'place', 'settings', 'setting', 'jack', 'title', 'type', 'notes'],
  ...['making', 'key', 'tuning', 'meter', 'way', 'character', 'candidates', 'sheets'],
  ...['gear', 'gives', 'outlet', 'is', 'was', 'sort'],
]);

/** What is written down by device. */
const KEYED = new Set(['states', 'divisions']);

/**
 * The same rig under ids that nobody could take for a name, such as "zq017zq", in the same order:
 * whatever tells a person of a rig must not say one.
 */
export function withOtherIds(rig: Rig): Rig {
  const ids = new Set<string>();
  const collect = (value: unknown): void => {
    if (value === null || typeof value !== 'object') return;
    if ('id' in value && typeof value.id === 'string') ids.add(value.id);
    for (const [key, inner] of Object.entries(value)) if (!STAY.has(key)) collect(inner);
  };
  collect(rig);
  const other = new Map(
    [...ids].sort().map((id, i) => [id, `zq${String(i).padStart(3, '0')}zq`] as const),
  );
  const change = (value: unknown, key: string): unknown => {
    if (STAY.has(key)) return value;
    // "tracks/click" is a jack of a device.
    if (typeof value === 'string') return value.replace(/^[^/]+/, (id) => other.get(id) ?? id);
    if (Array.isArray(value)) return value.map((x) => change(x, key));
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(
      Object.entries(value).map(([k, v]) => [(KEYED.has(key) && other.get(k)) || k, change(v, k)]),
    );
  };
  return change(rig, '') as Rig;
}
