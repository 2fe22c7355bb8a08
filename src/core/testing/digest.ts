/**
 * Numbers to six digits: what differs less is the arithmetic of another machine. Entries by their
 * names: in which order an object was made says nothing.
 */
const shown = (_: string, value: unknown): unknown => {
  if (value instanceof Map) return [...value];
  if (value instanceof Set) return [...value];
  if (typeof value === 'object' && value && !Array.isArray(value))
    return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)));
  if (typeof value !== 'number') return value;
  return Number.isFinite(value) ? Number(value.toPrecision(6)) : String(value);
};

/**
 * A short mark of a value, the same for the same value (FNV-1a over its JSON): for tests that hold
 * much against how it was and say which of it changed.
 */
export function digest(value: unknown): string {
  let hash = 0x811c9dc5;
  for (const char of JSON.stringify(value, shown) ?? 'nothing') {
    hash ^= char.codePointAt(0) ?? 0;
    hash = Math.imul(hash, 0x01000193);
  }
  return (hash >>> 0).toString(16).padStart(8, '0');
}
