import { at } from '../core/outcome';
import { sql } from 'kysely';
import { applyEdit, type Conflict, mergeRigs, type Problem, type Rig, sameJson } from '../core/rig';
import type { Db } from './database';
import { followGear } from './gear';
import { readStored } from './stored';

/** A rig in the list. */
export interface RigRow {
  id: string;
  name: string;
  head: number;
  changedAt: string;
  archived: boolean;
  devices: number;
  sounds: number;
}

/** A rig as it stands, with the number of its newest revision. */
export interface SavedRig {
  rig: Rig;
  revision: number;
  archived: boolean;
}

/** A revision in the history. */
export interface RevisionRow {
  number: number;
  basedOn: number | null;
  words: string;
  savedAt: string;
}

export type SaveResult =
  | { outcome: 'saved'; revision: number }
  | { outcome: 'merged'; revision: number; rig: Rig }
  | { outcome: 'conflict'; conflicts: Conflict[]; problems: Problem[]; theirs: SavedRig }
  | { outcome: 'missing' };

/** All rigs, the last changed first. */
export async function listRigs(db: Db): Promise<RigRow[]> {
  const rows = await db
    .selectFrom('rig')
    .innerJoin('revision', (j) =>
      j.onRef('revision.rig_id', '=', 'rig.id').onRef('revision.number', '=', 'rig.head'),
    )
    .select(['rig.id', 'rig.name', 'rig.head', 'rig.changed_at', 'rig.archived_at'])
    .select([
      sql<number>`jsonb_array_length(revision.document->'devices')`.as('devices'),
      sql<number>`jsonb_array_length(revision.document->'sounds')`.as('sounds'),
    ])
    .orderBy('rig.changed_at', 'desc')
    .execute();
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    head: r.head,
    changedAt: r.changed_at.toISOString(),
    archived: r.archived_at !== null,
    devices: Number(r.devices),
    sounds: Number(r.sounds),
  }));
}

/** Stores a new rig as revision 1; `false` where the id is taken. */
export async function createRig(db: Db, rig: Rig, words: string): Promise<boolean> {
  return db.transaction().execute(async (tx) => {
    const made = await tx
      .insertInto('rig')
      .values({ id: rig.id, name: rig.name, head: 1 })
      .onConflict((c) => c.column('id').doNothing())
      .returning('id')
      .executeTakeFirst();
    if (!made) return false;
    await tx
      .insertInto('revision')
      .values({ rig_id: rig.id, number: 1, based_on: null, words, document: JSON.stringify(rig) })
      .execute();
    await followGear(tx, rig);
    return true;
  });
}

/** The newest revision of a rig. */
export async function loadRig(db: Db, id: string): Promise<SavedRig | undefined> {
  const row = await db
    .selectFrom('rig')
    .innerJoin('revision', (j) =>
      j.onRef('revision.rig_id', '=', 'rig.id').onRef('revision.number', '=', 'rig.head'),
    )
    .select(['revision.document', 'rig.head', 'rig.archived_at'])
    .where('rig.id', '=', id)
    .executeTakeFirst();
  return (
    row && {
      rig: readStored(id, row.head, row.document),
      revision: row.head,
      archived: row.archived_at !== null,
    }
  );
}

/** One revision's document as it is stored, whatever is in it. */
export async function loadRaw(db: Db, id: string, number: number): Promise<unknown> {
  const row = await db
    .selectFrom('revision')
    .select('document')
    .where('rig_id', '=', id)
    .where('number', '=', number)
    .executeTakeFirst();
  return row?.document;
}

/** One revision's document, checked and up to date. */
export async function loadRevision(db: Db, id: string, number: number): Promise<Rig | undefined> {
  const document = await loadRaw(db, id, number);
  return document === undefined ? undefined : readStored(id, number, document);
}

/** Writes an earlier revision as the newest one, without reading the newest; `false` where there is none. */
export async function goBackTo(db: Db, id: string, number: number): Promise<boolean> {
  return db.transaction().execute(async (tx) => {
    const row = await tx
      .selectFrom('rig')
      .select('head')
      .where('id', '=', id)
      .forUpdate()
      .executeTakeFirst();
    const document = row && (await loadRevision(tx, id, number));
    if (!row || !document) return false;
    const head = row.head + 1;
    await tx
      .insertInto('revision')
      .values({
        rig_id: id,
        number: head,
        based_on: row.head,
        words: `went back to revision ${number}`,
        document: JSON.stringify(document),
      })
      .execute();
    await tx
      .updateTable('rig')
      .set({ head, name: document.name, changed_at: new Date() })
      .where('id', '=', id)
      .execute();
    await followGear(tx, document);
    return true;
  });
}

/** The revisions of a rig, newest first. */
export async function listRevisions(db: Db, id: string, limit = 500): Promise<RevisionRow[]> {
  const rows = await db
    .selectFrom('revision')
    .select(['number', 'based_on', 'words', 'saved_at'])
    .where('rig_id', '=', id)
    .orderBy('number', 'desc')
    .limit(limit)
    .execute();
  return rows.map((r) => ({
    number: r.number,
    basedOn: r.based_on,
    words: r.words,
    savedAt: r.saved_at.toISOString(),
  }));
}

/**
 * Saves a rig that was changed from revision `base`. On the newest revision it becomes the next
 * one. On a stale one, changes to different things are merged into a new revision; where both
 * touched the same thing, nothing is written and both sides are given back. One transaction; the
 * rig's row is locked while it runs.
 */
export async function saveRig(db: Db, rig: Rig, base: number, words: string): Promise<SaveResult> {
  return db.transaction().execute(async (tx) => {
    const row = await tx
      .selectFrom('rig')
      .select(['head', 'archived_at'])
      .where('id', '=', rig.id)
      .forUpdate()
      .executeTakeFirst();
    if (!row) return { outcome: 'missing' };
    const write = async (document: Rig): Promise<number> => {
      const number = row.head + 1;
      await tx
        .insertInto('revision')
        .values({
          rig_id: rig.id,
          number,
          based_on: base,
          words,
          document: JSON.stringify(document),
        })
        .execute();
      await tx
        .updateTable('rig')
        .set({ head: number, name: document.name, changed_at: new Date() })
        .where('id', '=', rig.id)
        .execute();
      await followGear(tx, document);
      return number;
    };
    if (row.head === base) return { outcome: 'saved', revision: await write(rig) };
    const head = await loadRevision(tx, rig.id, row.head);
    if (!head) return { outcome: 'missing' };
    const start = await loadRevision(tx, rig.id, base);
    if (!start)
      return {
        outcome: 'conflict',
        conflicts: [],
        problems: [{ where: 'base', what: `there is no revision ${base}; open the rig again` }],
        theirs: { rig: head, revision: row.head, archived: row.archived_at !== null },
      };
    const merge = mergeRigs(start, rig, head);
    if (!merge.merged)
      return {
        outcome: 'conflict',
        conflicts: merge.conflicts,
        problems: merge.problems,
        theirs: { rig: head, revision: row.head, archived: row.archived_at !== null },
      };
    // A save sent twice (its answer was lost) finds its own work already there.
    if (sameJson(head, merge.rig)) return { outcome: 'merged', revision: row.head, rig: head };
    return { outcome: 'merged', revision: await write(merge.rig), rig: merge.rig };
  });
}

/** Renames a rig as a revision of its own; the reason where the name will not do. */
export async function renameRig(
  db: Db,
  id: string,
  name: string,
): Promise<{ ok: true } | { ok: false; status: 404 | 409 | 422; why: string }> {
  const saved = await loadRig(db, id);
  if (!saved) return { ok: false, status: 404, why: 'There is no such rig any more.' };
  const applied = applyEdit(saved.rig, { edit: 'renameRig', name });
  if (!applied.ok) return { ok: false, status: 422, why: at(applied.problems, 0).what };
  const result = await saveRig(db, applied.value.rig, saved.revision, `renamed the rig to ${name}`);
  return result.outcome === 'saved' || result.outcome === 'merged'
    ? { ok: true }
    : {
        ok: false,
        status: 409,
        why: 'Somebody else renamed it at the same moment. Look at the list again.',
      };
}

/** Puts a rig away, or brings it back; nothing is deleted. `false` where there is none. */
export async function archiveRig(db: Db, id: string, archived: boolean): Promise<boolean> {
  const done = await db
    .updateTable('rig')
    .set({ archived_at: archived ? new Date() : null })
    .where('id', '=', id)
    .executeTakeFirst();
  return done.numUpdatedRows > 0n;
}
