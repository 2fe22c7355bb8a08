import * as z from 'zod';
import { sheetDifferences } from '../core/changes';
import {
  checkSheet,
  kindIdOf,
  learnSheets,
  type LockerSheet,
  type Rig,
  type Sheet,
  sheetIdOf,
} from '../core/rig';
import type { Db } from './database';
import { photographsOf } from './photographs';

export const putSheetSchema = z.object({
  sheet: z.unknown(),
  /** The version that was changed; nothing for one that the locker does not hold yet. */
  base: z.number().int().positive().nullable(),
});

/** Every sheet of the locker, by name, with the rigs that use it. */
export async function listSheets(db: Db): Promise<LockerSheet[]> {
  const [rows, uses, photographs, units] = await Promise.all([
    db.selectFrom('sheet').selectAll().execute(),
    db
      .selectFrom('sheet_use')
      .innerJoin('rig', 'rig.id', 'sheet_use.rig_id')
      .select(['sheet_id', 'kind', 'rig_id', 'sheet_use.devices', 'rig.name', 'rig.archived_at'])
      .orderBy('rig.name')
      .execute(),
    photographsOf(db, 'sheet'),
    db
      .selectFrom('gear_unit')
      .select(['serial', 'sheet_id'])
      .where('sheet_id', 'is not', null)
      .orderBy('serial')
      .execute(),
  ]);
  return rows
    .flatMap(({ body, version }): LockerSheet[] => {
      // What this version cannot read is told apart.
      const read = checkSheet(body);
      if (!read.ok) return [];
      const sheet = read.value;
      const mine = uses.filter((u) => u.sheet_id === sheet.id);
      return [
        {
          sheet,
          version,
          photographs: photographs.get(sheet.id) ?? [],
          units: units.filter((u) => u.sheet_id === sheet.id).map((u) => u.serial),
          uses: mine.map((u) => ({
            rig: u.rig_id,
            rigName: u.name,
            devices: u.devices,
            isSame: u.kind === kindIdOf(sheet),
            archived: u.archived_at !== null,
          })),
        },
      ];
    })
    .sort((a, b) => a.sheet.name.localeCompare(b.sheet.name));
}

/** Sheets that the locker holds and this version cannot read, and why: they stay where they are. */
export async function unreadSheets(db: Db): Promise<{ id: string; name: string; why: string }[]> {
  const rows = await db.selectFrom('sheet').select(['id', 'body']).orderBy('id').execute();
  return rows.flatMap(({ id, body }) => {
    const read = checkSheet(body);
    if (read.ok) return [];
    const { name } = body as { name?: unknown };
    const [problem] = read.problems;
    return [
      {
        id,
        name: typeof name === 'string' ? name : id,
        why: problem ? `${problem.where ? `${problem.where}: ` : ''}${problem.what}` : 'it is torn',
      },
    ];
  });
}

export type PutOutcome =
  | { is: 'put'; version: number }
  /** Somebody else changed it: what theirs says, and what that has which this one has not. */
  | { is: 'behind'; version: number; theirs: Sheet; differences: string[] };

/** Puts a sheet into the locker, where nobody else has changed it since `base`. */
export async function putSheet(db: Db, sheet: Sheet, base: number | null): Promise<PutOutcome> {
  const body = JSON.stringify(sheet);
  const put = await db.transaction().execute(async (tx) => {
    const held = await tx
      .selectFrom('sheet')
      .selectAll()
      .where('id', '=', sheet.id)
      .forUpdate()
      .executeTakeFirst();
    if (!held) {
      const added = await tx
        .insertInto('sheet')
        .values({ id: sheet.id, version: 1, body })
        .onConflict((c) => c.column('id').doNothing())
        .returning('version')
        .executeTakeFirst();
      // Somebody else put one of this id a moment before: it is looked at in another turn.
      return added && { is: 'put' as const, version: added.version };
    }
    const theirs = checkSheet(held.body);
    if (held.version !== base && theirs.ok) {
      const differences = sheetDifferences(sheet, theirs.value);
      return differences.length
        ? { is: 'behind' as const, version: held.version, theirs: theirs.value, differences }
        : { is: 'put' as const, version: held.version };
    }
    const version = held.version + 1;
    await tx
      .updateTable('sheet')
      .set({ version, body, changed_at: new Date() })
      .where('id', '=', sheet.id)
      .execute();
    return { is: 'put' as const, version };
  });
  return put ?? putSheet(db, sheet, base);
}

/** Takes a sheet out of the locker. Rigs keep their copies. */
export async function removeSheet(db: Db, id: string): Promise<boolean> {
  const gone = await db.deleteFrom('sheet').where('id', '=', id).executeTakeFirst();
  return gone.numDeletedRows > 0n;
}

/** All that the locker reads of a rig's sheets, as text: where two rigs agree on it, nothing is to follow. */
export const sheetsOf = (rig: Rig): string =>
  JSON.stringify((rig.sheets ?? []).map((s) => [kindIdOf(s), devicesOf(rig, s)]));

const devicesOf = (rig: Rig, sheet: Sheet): number =>
  rig.devices.filter((d) => sheetIdOf(d.kind) === sheet.id).length;

/** Brings the uses of one rig up to date with its document. Part of the save's transaction. */
export async function followSheets(tx: Db, rig: Rig): Promise<void> {
  learnSheets(rig.sheets);
  await tx.deleteFrom('sheet_use').where('rig_id', '=', rig.id).execute();
  if (!rig.sheets?.length) return;
  await tx
    .insertInto('sheet_use')
    .values(
      rig.sheets.map((s) => ({
        rig_id: rig.id,
        sheet_id: s.id,
        kind: kindIdOf(s),
        devices: devicesOf(rig, s),
      })),
    )
    .execute();
}
