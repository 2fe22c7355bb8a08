import * as z from 'zod';
import {
  type Book,
  bookBy,
  type Change,
  changed,
  changeSchema,
  type Differs,
  type Line,
  type RecordOf,
  RECORDS,
  type RecordType,
  type Show,
} from '../core/show/book';
import { unitClashes } from './clashes';
import type { Db } from './database';

/** How many changes one request may bring. */
const MOST_CHANGES = 500;
export const changesSchema = z.object({ changes: z.array(changeSchema).max(MOST_CHANGES) });

/** The table of each record, and what of it stands in columns of its own. */
const TABLES = {
  show: 'show',
  line: 'log_line',
  tick: 'check_tick',
  odds: 'fault_odds',
  care: 'care_interval',
  score: 'trainer_score',
} as const satisfies Record<RecordType, string>;

/** What an earlier version kept and this one cannot read is not shown; it stays where it is. */
function read<T extends RecordType>(is: T, rows: { id: string; body: object }[]): RecordOf<T>[] {
  return rows.flatMap(({ id, body }) => {
    const record = RECORDS[is].safeParse(body);
    return record.success ? [{ ...record.data, id } as unknown as RecordOf<T>] : [];
  });
}

/** All that is written down beside a rig. */
export async function bookOf(db: Db, rig: string): Promise<Book> {
  const held = await Promise.all(
    (Object.keys(TABLES) as RecordType[]).map(
      async (is) =>
        [
          is,
          await db
            .selectFrom(TABLES[is])
            .select(['id', 'body'])
            .where('rig_id', '=', rig)
            .execute(),
        ] as const,
    ),
  );
  const rows = new Map(held);
  return bookBy((is) => read(is, rows.get(is) ?? []));
}

/** What became of changes: which could not stand, and what two people changed otherwise. */
export interface Kept {
  refused: { id: string; problems: string[] }[];
  differs: Differs[];
}

/**
 * Makes changes, all in one transaction, each record under its own lock: two who change one line at
 * once both keep what they changed. A change that was made before is made again without harm.
 */
export async function keepChanges(db: Db, rig: string, changes: readonly Change[]): Promise<Kept> {
  const kept: Kept = { refused: [], differs: [] };
  // In one order for all, so that two who change the same records never wait for one another.
  const order = [...new Set(changes.map((c) => `${c.is} ${c.id}`))].sort();
  await db.transaction().execute(async (tx) => {
    for (const key of order)
      for (const change of changes.filter((c) => `${c.is} ${c.id}` === key))
        await keepOne(tx, rig, change, kept);
  });
  return kept;
}

async function keepOne(tx: Db, rig: string, change: Change, kept: Kept): Promise<void> {
  const { is, id } = change;
  const held = await tx
    .selectFrom(TABLES[is])
    .select(['id', 'rig_id', 'body'])
    .where('id', '=', id)
    .forUpdate()
    .executeTakeFirst();
  if (held && held.rig_id !== rig) {
    kept.refused.push({ id, problems: ['this id belongs to another rig'] });
    return;
  }
  const before = held && read(is, [held])[0];
  const { record, differs, problems } = changed(is, before, change);
  kept.differs.push(...differs);
  if (!record) {
    kept.refused.push({ id, problems });
    return;
  }
  const put = await write(tx, rig, is, record, held !== undefined);
  // Somebody else put one of this id a moment before: it is looked at in another turn.
  if (!put) await keepOne(tx, rig, change, kept);
}

async function write(
  tx: Db,
  rig: string,
  is: RecordType,
  { id, ...record }: RecordOf<RecordType>,
  isThere: boolean,
): Promise<boolean> {
  const body = JSON.stringify(record);
  if (is === 'show') {
    const { date, venue, gone } = record as Show;
    const row = { date, venue, gone, body };
    return isThere
      ? changedOne(await tx.updateTable('show').set(row).where('id', '=', id).executeTakeFirst())
      : addedOne(
          await tx
            .insertInto('show')
            .values({ id, rig_id: rig, ...row })
            .onConflict((c) => c.column('id').doNothing())
            .executeTakeFirst(),
        );
  }
  if (is !== 'line')
    return isThere
      ? changedOne(
          await tx.updateTable(TABLES[is]).set({ body }).where('id', '=', id).executeTakeFirst(),
        )
      : addedOne(
          await tx
            .insertInto(TABLES[is])
            .values({ id, rig_id: rig, body })
            .onConflict((c) => c.column('id').doNothing())
            .executeTakeFirst(),
        );
  const { at, sort, gone, links } = record as Line;
  const row = { at: new Date(at), sort, gone, body };
  const put = isThere
    ? changedOne(await tx.updateTable('log_line').set(row).where('id', '=', id).executeTakeFirst())
    : addedOne(
        await tx
          .insertInto('log_line')
          .values({ id, rig_id: rig, ...row })
          .onConflict((c) => c.column('id').doNothing())
          .executeTakeFirst(),
      );
  if (!put) return false;
  await tx.deleteFrom('log_link').where('line_id', '=', id).execute();
  const own = [...new Map(links.map((l) => [`${l.is} ${l.id}`, l])).values()];
  if (own.length)
    await tx
      .insertInto('log_link')
      .values(own.map((l) => ({ line_id: id, is: l.is, thing: l.id, serial: l.serial ?? null })))
      .execute();
  return true;
}

const changedOne = (r: { numUpdatedRows: bigint }): boolean => r.numUpdatedRows > 0n;
const addedOne = (r: { numInsertedOrUpdatedRows?: bigint }): boolean =>
  (r.numInsertedOrUpdatedRows ?? 0n) > 0n;

/** Lines about a unit by its serial number, in whatever rig they were written, newest first. */
export async function linesOfUnit(
  db: Db,
  serial: string,
): Promise<{ rig: string; rigName: string; line: Line }[]> {
  const rows = await db
    .selectFrom('log_link')
    .innerJoin('log_line', 'log_line.id', 'log_link.line_id')
    .innerJoin('rig', 'rig.id', 'log_line.rig_id')
    .select(['log_line.id', 'log_line.body', 'log_line.rig_id', 'rig.name'])
    .where('log_link.serial', '=', serial)
    .where('log_line.gone', '=', false)
    .orderBy('log_line.at', 'desc')
    .execute();
  return rows.flatMap((r) =>
    read('line', [r]).map((line) => ({ rig: r.rig_id, rigName: r.name, line })),
  );
}

/** A unit that two rigs want on one day. */
export interface DoubleBooked {
  date: string;
  serial: string;
  name: string;
  otherRig: string;
  otherVenue: string;
}

/** Units of a rig that another rig plays with on the same date; on other dates they may be shared. */
export async function doubleBooked(db: Db, rig: string): Promise<DoubleBooked[]> {
  const rows = await unitClashes(db)
    .select(['mine.body', 'a.serial', 'a.device_name', 'there.name', 'other.venue', 'mine.id'])
    .where('mine.rig_id', '=', rig)
    .orderBy('mine.date')
    .execute();
  return rows.flatMap((r) =>
    read('show', [r]).map(({ date }) => ({
      date,
      serial: r.serial,
      name: r.device_name,
      otherRig: r.name,
      otherVenue: r.venue,
    })),
  );
}
