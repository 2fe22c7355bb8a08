import { sure } from '../outcome';
import type { Problem } from '../outcome';
import { checkRig } from './read';
import type { Rig } from './schema';

/** One place that both sides changed differently: where, and the three values. */
export interface Conflict {
  where: string;
  base: unknown;
  mine: unknown;
  theirs: unknown;
}

export type Merge =
  { merged: true; rig: Rig } | { merged: false; conflicts: Conflict[]; problems: Problem[] };

type Json = unknown;
const isRecord = (v: Json): v is Record<string, Json> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);
/** Whether two values say the same, whatever the order of their fields. */
export const sameJson = (a: Json, b: Json): boolean => a === b || canonical(a) === canonical(b);
const canonical = (v: Json): string =>
  JSON.stringify(v, (_k, x: Json) =>
    isRecord(x) ? Object.fromEntries(Object.entries(x).sort(([a], [b]) => (a < b ? -1 : 1))) : x,
  ) ?? 'undefined';

/** Lists whose entries have ids (devices, leads, sounds) or name a finding merge entry by entry. */
const keyOf = (v: Json): string | undefined =>
  isRecord(v)
    ? typeof v.id === 'string'
      ? v.id
      : typeof v.finding === 'string'
        ? v.finding
        : undefined
    : undefined;
const isKeyed = (v: Json): v is Json[] =>
  Array.isArray(v) && v.every((x) => keyOf(x) !== undefined);

/**
 * Joins two sets of changes that started from the same rig. Changes to different things are both
 * kept; where both changed the same value differently, or the outcome would break a rule of the
 * format, nothing is merged and both sides are told.
 */
export function mergeRigs(base: Rig, mine: Rig, theirs: Rig): Merge {
  const conflicts: Conflict[] = [];
  const merged = mergeValue('', base, mine, theirs, conflicts);
  if (conflicts.length) return { merged: false, conflicts, problems: [] };
  const checked = checkRig(merged);
  return checked.ok
    ? { merged: true, rig: checked.value }
    : { merged: false, conflicts: [], problems: checked.problems };
}

/**
 * Joins one value of three documents. Where one side left it as it was, the other's holds. Where
 * both changed it, objects are joined field by field and lists of things with ids thing by thing, so
 * that changes meet only where they touch the same value; that is a conflict, and theirs stands in
 * until somebody has chosen.
 */
function mergeValue(
  where: string,
  base: Json,
  mine: Json,
  theirs: Json,
  conflicts: Conflict[],
): Json {
  if (sameJson(mine, theirs) || sameJson(base, theirs)) return mine;
  if (sameJson(base, mine)) return theirs;
  if (isRecord(mine) && isRecord(theirs) && (isRecord(base) || base === undefined)) {
    const from = base ?? {};
    const out: Record<string, Json> = {};
    for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
      const value = mergeValue(
        where ? `${where}.${key}` : key,
        from[key],
        mine[key],
        theirs[key],
        conflicts,
      );
      if (value !== undefined) out[key] = value;
    }
    return out;
  }
  if (isKeyed(mine) && isKeyed(theirs) && (base === undefined || isKeyed(base)))
    return mergeKeyed(where, base ?? [], mine, theirs, conflicts);
  conflicts.push({ where, base, mine, theirs });
  return theirs;
}

/**
 * Joins two lists of things with ids. First the order: it is that of the side which reordered what
 * all three have, and two different new orders are a conflict. What only the other side added goes
 * behind the thing that it stood behind there. Then each thing: gone on one side and untouched on
 * the other is gone; gone on one and changed on the other is a conflict; else it is joined.
 */
function mergeKeyed(
  where: string,
  base: Json[],
  mine: Json[],
  theirs: Json[],
  conflicts: Conflict[],
): Json[] {
  const index = (list: Json[]) => new Map(list.map((x) => [sure(keyOf(x)), x]));
  const [b, m, t] = [index(base), index(mine), index(theirs)];
  // The order is mine if I changed it, else theirs; what only the other side added goes where it stood.
  const orderOf = (list: Json[]) =>
    list.map((x) => sure(keyOf(x))).filter((k) => b.has(k) && m.has(k) && t.has(k));
  const iReordered = !sameJson(orderOf(mine), orderOf(base));
  if (
    iReordered &&
    !sameJson(orderOf(theirs), orderOf(base)) &&
    !sameJson(orderOf(mine), orderOf(theirs))
  ) {
    conflicts.push({
      where: `${where} (order)`,
      base: orderOf(base),
      mine: orderOf(mine),
      theirs: orderOf(theirs),
    });
  }
  const [lead, rest] = iReordered ? [mine, theirs] : [theirs, mine];
  const keys = lead.map((x) => sure(keyOf(x)));
  rest.forEach((x, i) => {
    const key = sure(keyOf(x));
    if (keys.includes(key)) return;
    const after = rest
      .slice(0, i)
      .map((y) => sure(keyOf(y)))
      .reverse()
      .find((k) => keys.includes(k));
    keys.splice(after === undefined ? 0 : keys.indexOf(after) + 1, 0, key);
  });
  return keys.flatMap((key) => {
    const value = mergeEntry(`${where}[${key}]`, b.get(key), m.get(key), t.get(key), conflicts);
    return value === undefined ? [] : [value];
  });
}

/** An entry removed on one side and changed on the other is a conflict; removed on one side only, it goes. */
function mergeEntry(
  where: string,
  base: Json,
  mine: Json,
  theirs: Json,
  conflicts: Conflict[],
): Json {
  if (base !== undefined && (mine === undefined) !== (theirs === undefined)) {
    const kept = mine ?? theirs;
    if (sameJson(kept, base)) return undefined;
    conflicts.push({ where, base, mine, theirs });
    return kept;
  }
  return mergeValue(where, base, mine, theirs, conflicts);
}
