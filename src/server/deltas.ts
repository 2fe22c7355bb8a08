import { create, type Delta } from 'jsondiffpatch';
import { at } from '../core/outcome';

/** A whole document at least this often, so that any revision is a few steps from one. */
export const WHOLE_EVERY = 50;

/** What changed is stored as such below this many characters, however small the document is. */
const SMALL = 500;

const differ = create({
  objectHash: (entry: object, index?: number) => {
    const { id, finding } = entry as { id?: string; finding?: string };
    return id ?? finding ?? `at ${index}`;
  },
});

/** What a revision is stored as: the document, or what changed in it. */
export type Stored = { document: string; delta: null } | { document: null; delta: string };

/**
 * How to store revision `number`: as what changed since the document before it, unless that is
 * hardly smaller or a whole one is due.
 */
export function asStored(number: number, before: unknown, after: unknown): Stored {
  const delta =
    number % WHOLE_EVERY === 0
      ? undefined
      : JSON.stringify(differ.diff(before, sharing(before, after)) ?? {});
  if (delta !== undefined && delta.length < SMALL) return { document: null, delta };
  const whole = JSON.stringify(after);
  return delta === undefined || delta.length > whole.length / 2
    ? { document: whole, delta: null }
    : { document: null, delta };
}

/** The document of the last of these rows: the first is whole, each other says what changed. */
export function fromStored(rows: readonly { document: unknown; delta: unknown }[]): unknown {
  let document = at(rows, 0).document;
  for (const { delta } of rows.slice(1))
    if (Object.keys(delta as object).length) document = differ.patch(document, delta as Delta);
  return document;
}

const idOf = (entry: unknown) => (entry as { id?: unknown } | null)?.id;

/**
 * A document with every part that is as it was before being the very object of before: what did not
 * change is then told at a glance, checked no more, and kept in memory once. What is undefined is not
 * there, as in JSON.
 */
export function sharing(before: unknown, after: unknown): unknown {
  if (before === after || typeof after !== 'object' || after === null) return after;
  if (typeof before !== 'object' || before === null) return after;
  if (Array.isArray(after)) {
    if (!Array.isArray(before)) return after;
    const byId = new Map(before.map((x) => [idOf(x), x]));
    const next = after.map((x, i) => sharing(byId.get(idOf(x) ?? NaN) ?? before[i], x));
    return next.length === before.length && next.every((x, i) => x === before[i]) ? before : next;
  }
  const was = before as Record<string, unknown>;
  const entries = Object.entries(after)
    .filter(([, x]) => x !== undefined)
    .map(([k, x]) => [k, sharing(was[k], x)] as const);
  return entries.length === Object.keys(was).length && entries.every(([k, x]) => x === was[k])
    ? before
    : Object.fromEntries(entries);
}
