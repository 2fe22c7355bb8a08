import { bookBy, EMPTY, same } from './blank';
import {
  type Book,
  type Change,
  type Differs,
  RECORDS,
  type RecordOf,
  type RecordType,
} from './records';

/** What is no list of its own to be lost: of two who set it otherwise the last counts. */
const LAST_COUNTS: readonly RecordType[] = ['tick', 'odds', 'care', 'score'];

/**
 * A record after a change. A field that nobody else touched takes the new value; one that somebody
 * else changed to something other stays as theirs and is told, but for ticks, odds, care and
 * scores, of which the last counts. `problems` says what cannot stand; then nothing is taken.
 */
export function changed<T extends RecordType>(
  is: T,
  before: RecordOf<T> | undefined,
  change: Change,
): { record?: RecordOf<T>; differs: Differs[]; problems: string[] } {
  const base: Record<string, unknown> = { ...EMPTY[is], ...before, id: change.id };
  const differs: Differs[] = [];
  for (const [field, { was, now }] of Object.entries(change.fields)) {
    if (!Object.hasOwn(EMPTY[is], field)) continue;
    const theirs = base[field];
    const free = !before || LAST_COUNTS.includes(is) || same(theirs, was) || same(theirs, now);
    if (free) base[field] = now;
    else differs.push({ is, id: change.id, field, theirs, yours: now });
  }
  const read = RECORDS[is].safeParse(base);
  return read.success
    ? { record: { ...read.data, id: change.id } as unknown as RecordOf<T>, differs, problems: [] }
    : {
        differs,
        problems: read.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`),
      };
}

/** A book with changes made to it, as far as they can be; what could not be is left out. */
export function withChanges(book: Book, changes: readonly Change[]): Book {
  const next = bookBy((is) => [...(book[is] as RecordOf<typeof is>[])]);
  const put = <T extends RecordType>(is: T, change: Change) => {
    const list = next[is] as unknown as RecordOf<T>[];
    const at = list.findIndex((r) => r.id === change.id);
    const { record } = changed(is, list[at], change);
    if (!record) return;
    if (at < 0) list.push(record);
    else list[at] = record;
  };
  for (const c of changes) put(c.is, c);
  return next;
}
