export type Json = unknown;

export const isRecord = (v: Json): v is Record<string, Json> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

/** Whether two values say the same, whatever the order of their fields; one left out is one undefined. */
export function sameJson(a: Json, b: Json): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((x, i) => sameJson(x, b[i]));
  if (!isRecord(a) || !isRecord(b)) return false;
  return (
    Object.keys(a).every((key) => sameJson(a[key], b[key])) &&
    Object.keys(b).every((key) => b[key] === undefined || Object.hasOwn(a, key))
  );
}
