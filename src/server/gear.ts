import { sql } from 'kysely';
import * as z from 'zod';
import { type LockerUnit, type Rig, sheetIdOf } from '../core/rig';
import { unitClashes } from './clashes';
import type { Db } from './database';
import { photographsOf } from './photographs';

const words = z.string().trim().max(120);
export const gearUnitSchema = z.object({
  serial: words.min(1, 'give its serial number'),
  name: words.min(1, 'give it a name'),
  owner: words.default(''),
  grams: z.number().min(0).max(1e6).nullable().default(null),
  value: z.number().min(0).max(1e9).nullable().default(null),
  notes: z.string().max(4000).default(''),
  /** Nothing said: as it is. */
  sheet: z.string().max(64).nullable().optional(),
});
export type NewGearUnit = z.infer<typeof gearUnitSchema>;

/** Every unit, by name, with where it is used. */
export async function listGear(db: Db): Promise<LockerUnit[]> {
  const [units, uses, clashes, photographs] = await Promise.all([
    db.selectFrom('gear_unit').selectAll().orderBy('name').orderBy('serial').execute(),
    db
      .selectFrom('gear_use')
      .innerJoin('rig', 'rig.id', 'gear_use.rig_id')
      .select([
        'gear_use.serial',
        'gear_use.rig_id',
        'gear_use.device_id',
        'gear_use.device_name',
        'rig.name',
        'rig.archived_at',
      ])
      .orderBy('rig.name')
      .execute(),
    clashesOf(db),
    photographsOf(db, 'unit'),
  ]);
  return units.map(({ sheet_id: sheet, ...u }) => {
    const mine = uses
      .filter((x) => x.serial === u.serial)
      .map((x) => ({
        rig: x.rig_id,
        rigName: x.name,
        device: x.device_id,
        deviceName: x.device_name,
        archived: x.archived_at !== null,
      }));
    return {
      ...u,
      sheet,
      photographs: photographs.get(u.serial) ?? [],
      uses: mine,
      clashes: clashes.get(u.serial) ?? [],
      doubleBooked: clashes.has(u.serial) || isTwiceInOne(mine),
    };
  });
}

/** Whether one rig that is not archived has two devices that are the same unit. */
const isTwiceInOne = (uses: LockerUnit['uses']): boolean => {
  const rigs = uses.filter((x) => !x.archived).map((x) => x.rig);
  return new Set(rigs).size < rigs.length;
};

/** From today on, the dates on which two rigs that are not archived play with the same unit. */
async function clashesOf(db: Db): Promise<Map<string, string[]>> {
  const rows = await unitClashes(db)
    .innerJoin('rig as here', 'here.id', 'mine.rig_id')
    .select(['a.serial', sql<string>`to_char(mine.date, 'YYYY-MM-DD')`.as('date')])
    .distinct()
    .where('here.archived_at', 'is', null)
    .where('mine.date', '>=', sql<string>`current_date`)
    .orderBy('date')
    .execute();
  const found = new Map<string, string[]>();
  for (const { serial, date } of rows) found.set(serial, [...(found.get(serial) ?? []), date]);
  return found;
}

/** Adds a unit, or changes the one with its serial number; `false` where its sheet is not in the locker. */
export async function putGear(db: Db, unit: NewGearUnit): Promise<boolean> {
  const { serial, sheet, ...said } = unit;
  if (sheet !== undefined && sheet !== null) {
    const held = db.selectFrom('sheet').select('id').where('id', '=', sheet);
    if (!(await held.executeTakeFirst())) return false;
  }
  const rest = { ...said, ...(sheet !== undefined && { sheet_id: sheet }) };
  await db
    .insertInto('gear_unit')
    .values({ serial, ...rest })
    .onConflict((c) => c.column('serial').doUpdateSet(rest))
    .execute();
  return true;
}

/** Takes a unit out of the locker; the rigs that use it, where any do, and nothing is done. */
export async function removeGear(
  db: Db,
  serial: string,
): Promise<{ removed: boolean; usedIn: string[] }> {
  return db.transaction().execute(async (tx) => {
    const uses = await tx
      .selectFrom('gear_use')
      .innerJoin('rig', 'rig.id', 'gear_use.rig_id')
      .select('rig.name')
      .where('serial', '=', serial)
      .execute();
    if (uses.length) return { removed: false, usedIn: [...new Set(uses.map((u) => u.name))] };
    const gone = await tx.deleteFrom('gear_unit').where('serial', '=', serial).executeTakeFirst();
    return { removed: gone.numDeletedRows > 0n, usedIn: [] };
  });
}

/** All that the locker reads from a rig, as text: where two rigs agree on it, nothing is to follow. */
export const gearOf = (rig: Rig): string =>
  JSON.stringify(
    rig.devices.flatMap(({ id, name, kind, gear }) =>
      gear?.serial?.trim()
        ? [[id, name, sheetIdOf(kind), gear.serial, gear.owner, gear.grams, gear.value]]
        : [],
    ),
  );

/**
 * Brings the uses of one rig up to date with what its document says; units that the locker does not
 * know are added. Part of the save's transaction.
 */
export async function followGear(tx: Db, rig: Rig): Promise<void> {
  const uses = rig.devices.flatMap((d) => {
    const serial = d.gear?.serial?.trim();
    return serial ? [{ device: d, serial }] : [];
  });
  await tx.deleteFrom('gear_use').where('rig_id', '=', rig.id).execute();
  if (!uses.length) return;
  const known = new Set<string>();
  // In one order for all: two saves that touch the same units wait for one another, and never both.
  const units = uses
    .filter(({ serial }) => !known.has(serial) && known.add(serial))
    .sort((a, b) => (a.serial < b.serial ? -1 : 1));
  const sheets = new Set((await tx.selectFrom('sheet').select('id').execute()).map((s) => s.id));
  const sheetOf = (kind: string): string | null => {
    const id = sheetIdOf(kind);
    return id !== undefined && sheets.has(id) ? id : null;
  };
  // What a rig says of weight, owner, value and sheet fills what the locker does not say yet.
  await tx
    .insertInto('gear_unit')
    .values(
      units.map(({ device: d, serial }) => ({
        serial,
        name: d.name,
        owner: d.gear?.owner ?? '',
        grams: d.gear?.grams ?? null,
        value: d.gear?.value ?? null,
        notes: '',
        sheet_id: sheetOf(d.kind),
      })),
    )
    .onConflict((c) =>
      c.column('serial').doUpdateSet({
        owner: sql`case when gear_unit.owner = '' then excluded.owner else gear_unit.owner end`,
        grams: sql`coalesce(gear_unit.grams, excluded.grams)`,
        value: sql`coalesce(gear_unit.value, excluded.value)`,
        sheet_id: sql`coalesce(gear_unit.sheet_id, excluded.sheet_id)`,
      }),
    )
    .execute();
  await tx
    .insertInto('gear_use')
    .values(
      uses.map(({ device: d, serial }) => ({
        rig_id: rig.id,
        device_id: d.id,
        serial,
        device_name: d.name,
      })),
    )
    .execute();
}
