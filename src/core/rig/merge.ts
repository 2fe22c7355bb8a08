import { sure } from '../outcome';
import { checkRig } from './read';
import { isRecord, type Json, sameJson } from './same-json';
import type { Rig } from './schema';
import { withoutMarks } from './sheets';

/** One place that both sides changed differently: where, and the three values. */
export interface Clash {
  /** A path such as `devices[kiln].name`, or an entry such as `leads[l7]`. */
  where: string;
  base: unknown;
  mine: unknown;
  theirs: unknown;
  /** Why the two cannot stand together, where they are not one value. */
  why?: string;
}

/** Whose change holds where both changed one thing. */
export type Side = 'mine' | 'theirs';

/** Who is asked at each clash; where nobody has said yet, theirs holds. */
export type Choose = (where: string) => Side | undefined;

/** What two sets of changes come to, and where they clashed. */
export interface Merged {
  rig: Rig;
  clashes: Clash[];
}

interface Clashing {
  clashes: Clash[];
  choose: Choose;
}

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
 * kept. Where both changed the same value differently, the side that `choose` says holds, for that
 * value alone, and the clash is told. Where the outcome would break a rule of the format, as much
 * of both sides as can stand together is kept ({@link mostOfBoth}). The outcome is always a whole
 * rig.
 */
export function mergeRigs(
  base: Rig,
  mine: Rig,
  theirs: Rig,
  choose: Choose = () => undefined,
): Merged {
  [base, mine, theirs] = [withoutMarks(base), withoutMarks(mine), withoutMarks(theirs)];
  const clashing: Clashing = { clashes: [], choose };
  const merged = mergeValue('', base, mine, theirs, clashing);
  const checked = checkRig(merged);
  if (checked.ok) return { rig: checked.value, clashes: clashing.clashes };
  return mostOfBoth(base, mine, theirs, choose);
}

/**
 * Joins one value of three documents. Where one side left it as it was, the other's holds. Where
 * both changed it, objects are joined field by field and lists of things with ids thing by thing, so
 * that changes meet only where they touch the same value; that is a clash, and theirs stands in
 * until somebody has chosen.
 */
function mergeValue(where: string, base: Json, mine: Json, theirs: Json, clashing: Clashing): Json {
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
        clashing,
      );
      if (value !== undefined) out[key] = value;
    }
    return out;
  }
  if (isKeyed(mine) && isKeyed(theirs) && (base === undefined || isKeyed(base)))
    return mergeKeyed(where, base ?? [], mine, theirs, clashing);
  return chosen(where, base, mine, theirs, clashing);
}

/** Notes that two sides clash, and gives the value that holds. */
function chosen(where: string, base: Json, mine: Json, theirs: Json, clashing: Clashing): Json {
  clashing.clashes.push({ where, base, mine, theirs });
  return clashing.choose(where) === 'mine' ? mine : theirs;
}

/**
 * Joins two lists of things with ids. First the order: it is that of the side which reordered what
 * all three have, and two different new orders are a clash. What only the other side added goes
 * behind the thing that it stood behind there. Then each thing: gone on one side and untouched on
 * the other is gone; gone on one and changed on the other is a clash; else it is joined.
 */
function mergeKeyed(
  where: string,
  base: Json[],
  mine: Json[],
  theirs: Json[],
  clashing: Clashing,
): Json[] {
  const index = (list: Json[]) => new Map(list.map((x) => [sure(keyOf(x)), x]));
  const [b, m, t] = [index(base), index(mine), index(theirs)];
  // The order is mine if I changed it, else theirs; what only the other side added goes where it stood.
  const orderOf = (list: Json[]) =>
    list.map((x) => sure(keyOf(x))).filter((k) => b.has(k) && m.has(k) && t.has(k));
  const orders = [base, mine, theirs].map(orderOf) as [string[], string[], string[]];
  let iReordered = !sameJson(orders[1], orders[0]);
  if (iReordered && !sameJson(orders[2], orders[0]) && !sameJson(orders[1], orders[2])) {
    chosen(`${where} (order)`, ...orders, clashing);
    iReordered = clashing.choose(`${where} (order)`) === 'mine';
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
    const value = mergeEntry(`${where}[${key}]`, b.get(key), m.get(key), t.get(key), clashing);
    return value === undefined ? [] : [value];
  });
}

/** An entry removed on one side and changed on the other is a clash; removed on one side only, it goes. */
function mergeEntry(where: string, base: Json, mine: Json, theirs: Json, clashing: Clashing): Json {
  if (base !== undefined && (mine === undefined) !== (theirs === undefined)) {
    const kept = mine ?? theirs;
    if (sameJson(kept, base)) return undefined;
    return chosen(where, base, mine, theirs, clashing);
  }
  return mergeValue(where, base, mine, theirs, clashing);
}

/** One entry of a document that a side changed: of a list whose entries have ids, or a field. */
interface Entry {
  side: Side;
  key: string;
}

/** The entries of a document by key: those of lists with ids one by one, other fields whole. */
function entriesOf(rig: Rig): Map<string, Json> {
  const found = new Map<string, Json>();
  for (const [field, value] of Object.entries(rig))
    if (isKeyed(value)) for (const x of value) found.set(`${field}[${keyOf(x)}]`, x);
    else found.set(field, value);
  return found;
}

function changedKeys(base: Map<string, Json>, side: Map<string, Json>): string[] {
  return [...new Set([...side.keys(), ...base.keys()])].filter(
    (key) => !sameJson(base.get(key), side.get(key)),
  );
}

/** A document as it was, with only those entries changed that are taken. */
function withOnly(base: Rig, side: Rig, taken: ReadonlySet<string>): Json {
  const out: Record<string, Json> = {};
  for (const field of new Set([...Object.keys(side), ...Object.keys(base)])) {
    const [was, is] = [base[field], side[field]];
    if (isKeyed(is ?? []) && isKeyed(was ?? []) && (is ?? was) !== undefined) {
      const [before, after] = [(was ?? []) as Json[], (is ?? []) as Json[]];
      const own = (list: Json[], x: Json) => list.find((y) => keyOf(y) === keyOf(x));
      const take = (x: Json) => taken.has(`${field}[${keyOf(x)}]`);
      out[field] = [
        ...after.flatMap((x) => (take(x) ? [x] : (own(before, x) ?? []))),
        ...before.filter((x) => own(after, x) === undefined && !take(x)),
      ];
    } else out[field] = taken.has(field) ? is : was;
    if (out[field] === undefined) delete out[field];
  }
  return out;
}

/**
 * As much of both sides as can stand together where the two as a whole break a rule of the format,
 * such as two leads in one jack, or a lead to a device that is gone on the other side. The entries
 * that a person chose of mine come first, then theirs, then the rest of mine; each is taken if the
 * document with it is whole, and those that were not are tried again while anything was taken. What
 * of mine is left out is told as a clash.
 */
function mostOfBoth(base: Rig, mine: Rig, theirs: Rig, choose: Choose): Merged {
  const [b, m, t] = [base, mine, theirs].map(entriesOf) as [
    Map<string, Json>,
    ...Map<string, Json>[],
  ] as [Map<string, Json>, Map<string, Json>, Map<string, Json>];
  const own = changedKeys(b, m);
  const chosenMine = own.filter((key) => choose(key) === 'mine');
  const taken: Record<Side, Set<string>> = { mine: new Set(), theirs: new Set() };
  let last: { rig: Rig; clashes: Clash[] } = { rig: theirs, clashes: [] };
  const attempt = (more: readonly Entry[]) => {
    const keys = (side: Side) =>
      new Set([...taken[side], ...more.filter((e) => e.side === side).map((e) => e.key)]);
    const clashing: Clashing = { clashes: [], choose };
    const merged = mergeValue(
      '',
      base,
      withOnly(base, mine, keys('mine')),
      withOnly(base, theirs, keys('theirs')),
      clashing,
    );
    return { checked: checkRig(merged), clashes: clashing.clashes };
  };
  /** Takes all of a list that can be taken: whole where that is right, else halved. */
  const take = (list: readonly Entry[]): number => {
    if (!list.length) return 0;
    const { checked, clashes } = attempt(list);
    if (checked.ok) {
      for (const e of list) taken[e.side].add(e.key);
      last = { rig: checked.value, clashes };
      return list.length;
    }
    if (list.length === 1) return 0;
    const half = Math.ceil(list.length / 2);
    return take(list.slice(0, half)) + take(list.slice(half));
  };
  const tiers: Entry[][] = [
    chosenMine.map((key) => ({ side: 'mine', key })),
    changedKeys(b, t).map((key) => ({ side: 'theirs', key })),
    own.filter((key) => !chosenMine.includes(key)).map((key) => ({ side: 'mine', key })),
  ];
  const open = () => tiers.map((list) => list.filter((e) => !taken[e.side].has(e.key)));
  while (open().reduce((n, list) => n + take(list), 0) > 0);
  const blocked = own.filter((key) => !taken.mine.has(key) || chosenMine.includes(key));
  return {
    rig: last.rig,
    clashes: [
      ...last.clashes,
      ...blocked.map((key): Clash => {
        const { checked } = attempt([{ side: 'mine', key }]);
        return {
          where: key,
          base: b.get(key),
          mine: m.get(key),
          theirs: t.get(key),
          ...(!checked.ok && { why: checked.problems[0]?.what }),
        };
      }),
    ],
  };
}
