import type { Insertable } from 'kysely';
import type { Rig } from '../core/rig';
import type { Db } from './database';
import { asStored, fromStored, sharing } from './deltas';
import { followGear, gearOf } from './gear';
import { followSheets, sheetsOf } from './sheets';
import { tell } from './live/telling';
import { recent } from './recent';
import type { RevisionTable } from './schema';
import { readStored } from './stored';

/** A rig as it stands, with the number of its newest revision. */
export interface SavedRig {
  rig: Rig;
  revision: number;
  identity: string;
  by: string | null;
  words: string;
  archived: boolean;
}

/** A revision in the history. */
export interface RevisionRow {
  number: number;
  basedOn: number | null;
  words: string;
  savedAt: string;
  by: string | null;
  name: string | null;
}

/** What a page sends to be the next revision. */
export interface Save {
  rig: Rig;
  /** The identity of the revision that it was changed from. */
  base: string;
  /** The identity that the new revision gets: sent again, it is recognised. */
  identity: string;
  words: string;
  by: string | null;
}

export type SaveResult =
  | { outcome: 'saved'; revision: number; newer?: SavedRig }
  /** Others have saved since, or the base is none of this rig's: nothing was written. */
  | { outcome: 'behind' | 'unknown base'; head: SavedRig }
  | { outcome: 'missing' };

/** Stores a new rig as revision 1; `false` where the id is taken. */
export async function createRig(db: Db, rig: Rig, words: string): Promise<boolean> {
  const made = await db.transaction().execute(async (tx) => {
    const free = await tx
      .insertInto('rig')
      .values({ id: rig.id, name: rig.name, head: 1, ...counts(rig) })
      .onConflict((c) => c.column('id').doNothing())
      .returning('id')
      .executeTakeFirst();
    if (!free) return undefined;
    const document = { document: JSON.stringify(rig), delta: null };
    const { identity } = await tx
      .insertInto('revision')
      .values({ rig_id: rig.id, number: 1, based_on: null, words, saved_by: null, ...document })
      .returning('identity')
      .executeTakeFirstOrThrow();
    await followGear(tx, rig);
    await followSheets(tx, rig);
    return identity;
  });
  if (made === undefined) return false;
  recent.set(made, rig);
  return true;
}

const counts = (rig: Rig) => ({ devices: rig.devices.length, sounds: rig.sounds.length });

/** The newest revision of a rig. */
export async function loadRig(db: Db, id: string): Promise<SavedRig | undefined> {
  const row = await db
    .selectFrom('rig')
    .innerJoin('revision', (j) =>
      j.onRef('revision.rig_id', '=', 'rig.id').onRef('revision.number', '=', 'rig.head'),
    )
    .select(['rig.head', 'rig.archived_at'])
    .select(['revision.identity', 'revision.saved_by', 'revision.words'])
    .where('rig.id', '=', id)
    .executeTakeFirst();
  if (!row) return undefined;
  let rig = recent.get(row.identity);
  if (!rig) {
    rig = readStored(id, row.head, await loadRaw(db, id, row.head));
    recent.set(row.identity, rig);
  }
  return {
    rig,
    revision: row.head,
    identity: row.identity,
    by: row.saved_by,
    words: row.words,
    archived: row.archived_at !== null,
  };
}

/** One revision's document as it is stored, whatever is in it. */
export async function loadRaw(db: Db, id: string, number: number): Promise<unknown> {
  const rows = await db
    .selectFrom('revision')
    .select(['number', 'document', 'delta'])
    .where('rig_id', '=', id)
    .where('number', '<=', number)
    .where('number', '>=', (q) =>
      q
        .selectFrom('revision')
        .select((s) => s.fn.max('number').as('whole'))
        .where('rig_id', '=', id)
        .where('number', '<=', number)
        .where('document', 'is not', null),
    )
    .orderBy('number')
    .execute();
  return rows.at(-1)?.number === number ? fromStored(rows) : undefined;
}

/** One revision's document, checked and up to date. */
export async function loadRevision(db: Db, id: string, number: number): Promise<Rig | undefined> {
  const document = await loadRaw(db, id, number);
  return document === undefined ? undefined : readStored(id, number, document);
}

/**
 * Adds the next revision of a rig whose row is locked, and tells everybody. `before` is the newest
 * document where it is at hand. Gives the new number.
 */
async function addRevision(
  tx: Db,
  rig: Rig,
  head: number,
  row: Pick<Insertable<RevisionTable>, 'identity' | 'words' | 'saved_by' | 'based_on'>,
  before?: Rig,
): Promise<number> {
  const number = head + 1;
  const stored = asStored(number, before ?? (await loadRaw(tx, rig.id, head)), rig);
  const { identity } = await tx
    .insertInto('revision')
    .values({ rig_id: rig.id, number, ...row, ...stored })
    .returning('identity')
    .executeTakeFirstOrThrow();
  await tx
    .updateTable('rig')
    .set({ head: number, name: rig.name, changed_at: new Date(), ...counts(rig) })
    .where('id', '=', rig.id)
    .execute();
  // Most edits leave serial numbers alone, and need not wait for other rigs with the same units.
  if (!before || gearOf(before) !== gearOf(rig)) await followGear(tx, rig);
  if (!before || sheetsOf(before) !== sheetsOf(rig)) await followSheets(tx, rig);
  await tell(tx, { is: 'saved', rig: rig.id, revision: number, identity });
  return number;
}

/** Writes an earlier revision as the newest one, without reading the newest; `false` where there is none. */
export async function goBackTo(db: Db, id: string, number: number): Promise<boolean> {
  return db.transaction().execute(async (tx) => {
    const row = await locked(tx, id);
    const document = row && (await loadRevision(tx, id, number));
    if (!row || !document) return false;
    const words = `went back to revision ${number}`;
    await addRevision(tx, document, row.head, { based_on: row.head, words, saved_by: null });
    return true;
  });
}

const locked = (tx: Db, id: string) =>
  tx
    .selectFrom('rig')
    .select(['head', 'archived_at'])
    .where('id', '=', id)
    .forUpdate()
    .executeTakeFirst();

/** Which revisions are wanted; all of them where nothing is said. */
export interface RevisionSearch {
  /** Only those before this number. */
  before?: number;
  /** Words in what was changed, in the name of a revision, or in the name of a person. */
  words?: string;
  /** Only those saved at this moment or later, and before that one. */
  from?: Date;
  until?: Date;
  limit?: number;
}

/** The revisions of a rig that are searched for, newest first. */
export async function listRevisions(
  db: Db,
  id: string,
  { before, words, from, until, limit = 200 }: RevisionSearch = {},
): Promise<RevisionRow[]> {
  let query = db
    .selectFrom('revision as r')
    .leftJoin('revision_name as n', (j) =>
      j.onRef('n.rig_id', '=', 'r.rig_id').onRef('n.number', '=', 'r.number'),
    )
    .select(['r.number', 'r.based_on', 'r.words', 'r.saved_at', 'r.saved_by', 'n.name'])
    .where('r.rig_id', '=', id)
    .orderBy('r.number', 'desc')
    .limit(Math.min(limit, 1000));
  if (before !== undefined) query = query.where('r.number', '<', before);
  if (from) query = query.where('r.saved_at', '>=', from);
  if (until) query = query.where('r.saved_at', '<', until);
  for (const word of (words ?? '').split(/\s+/).filter(Boolean)) {
    const like = `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
    query = query.where((w) =>
      w.or([
        w('r.words', 'ilike', like),
        w('r.saved_by', 'ilike', like),
        w('n.name', 'ilike', like),
      ]),
    );
  }
  return (await query.execute()).map((r) => ({
    number: r.number,
    basedOn: r.based_on,
    words: r.words,
    savedAt: r.saved_at.toISOString(),
    by: r.saved_by,
    name: r.name,
  }));
}

/** Gives a revision a name, or takes it away; `false` where there is no such revision. */
export async function nameRevision(
  db: Db,
  id: string,
  number: number,
  name: string | null,
): Promise<boolean> {
  const row = await db
    .selectFrom('revision')
    .select('number')
    .where('rig_id', '=', id)
    .where('number', '=', number)
    .executeTakeFirst();
  if (!row) return false;
  if (name === null)
    await db
      .deleteFrom('revision_name')
      .where('rig_id', '=', id)
      .where('number', '=', number)
      .execute();
  else
    await db
      .insertInto('revision_name')
      .values({ rig_id: id, number, name })
      .onConflict((c) => c.columns(['rig_id', 'number']).doUpdateSet({ name }))
      .execute();
  return true;
}

/**
 * Where a save would stand: `next` where it was changed from the newest revision, else the answer to
 * it without anything being written.
 */
async function placeOf(
  db: Db,
  { id, base, identity }: { id: string; base: string; identity: string },
  head: number,
): Promise<'next' | SaveResult> {
  const known = await db
    .selectFrom('revision')
    .select(['number', 'identity'])
    .where('rig_id', '=', id)
    .where('identity', 'in', [identity, base])
    .execute();
  const mine = known.find((r) => r.identity === identity);
  const from = known.find((r) => r.identity === base);
  if (!mine && from?.number === head) return 'next';
  const newest = await loadRig(db, id);
  if (!newest) return { outcome: 'missing' };
  if (!mine) return { outcome: from ? 'behind' : 'unknown base', head: newest };
  const newer = mine.number < newest.revision && { newer: newest };
  return { outcome: 'saved', revision: mine.number, ...newer };
}

/**
 * The answer to a save that cannot be the next revision whatever is in it, before its document is
 * read: a page that is behind is told at once.
 */
export async function answeredBeforehand(
  db: Db,
  save: { id: string; base: string; identity: string },
): Promise<SaveResult | undefined> {
  const row = await db
    .selectFrom('rig')
    .select('head')
    .where('id', '=', save.id)
    .executeTakeFirst();
  if (!row) return { outcome: 'missing' };
  const known = await placeOf(db, save, row.head);
  return known === 'next' ? undefined : known;
}

/**
 * A document that was changed from the revision `base`, with what did not change as the very objects
 * of that revision, where it is at hand: they were checked before.
 */
export const changedFrom = (base: string, document: unknown): unknown => {
  const before = recent.get(base);
  return before ? sharing(before, document) : document;
};

/**
 * Saves a rig as the revision after the one it was changed from. Only on the newest revision
 * anything is written; a page that is behind gets the newest, joins the two, and asks again. A save
 * that is sent twice (its answer was lost) finds itself by its identity. One transaction; the rig's
 * row is locked while it runs.
 */
export async function saveRig(db: Db, save: Save): Promise<SaveResult> {
  const { base, identity, words, by } = save;
  const { rig } = save;
  const before = recent.get(base);
  const result = await db.transaction().execute(async (tx): Promise<SaveResult> => {
    const row = await locked(tx, rig.id);
    if (!row) return { outcome: 'missing' };
    const known = await placeOf(tx, { id: rig.id, base, identity }, row.head);
    if (known !== 'next') return known;
    const head = { identity, words, saved_by: by, based_on: row.head };
    return { outcome: 'saved', revision: await addRevision(tx, rig, row.head, head, before) };
  });
  if (result.outcome === 'saved') recent.set(identity, rig);
  return result;
}

/** Puts a rig away, or brings it back; nothing is deleted. `false` where there is none. */
export async function archiveRig(db: Db, id: string, archived: boolean): Promise<boolean> {
  return db.transaction().execute(async (tx) => {
    const done = await tx
      .updateTable('rig')
      .set({ archived_at: archived ? new Date() : null })
      .where('id', '=', id)
      .executeTakeFirst();
    await tell(tx, { is: 'archived', rig: id, archived });
    return done.numUpdatedRows > 0n;
  });
}

/** Sorts a rig under words, each once. `false` where there is none. */
export async function tagRig(db: Db, id: string, tags: readonly string[]): Promise<boolean> {
  const done = await db
    .updateTable('rig')
    .set({ tags: [...new Set(tags)] })
    .where('id', '=', id)
    .executeTakeFirst();
  return done.numUpdatedRows > 0n;
}

/** Whether there is a rig of this id, archived or not. */
export const hasRig = async (db: Db, id: string): Promise<boolean> =>
  (await db.selectFrom('rig').select('id').where('id', '=', id).executeTakeFirst()) !== undefined;
