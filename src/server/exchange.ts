import { findKind } from '../core/kinds';
import { type Exchanged, type InPlace, type Sheet, unitInPlace } from '../core/rig';
import type { Db } from './database';
import { listGear } from './gear';
import { listSheets } from './sheets';

/** What a page names of what takes a place: a sheet or a unit of the locker, or a kind that ships. */
export type NamedInPlace =
  { is: 'sheet'; id: string } | { is: 'kind'; kind: string } | { is: 'unit'; serial: string };

/** What the locker says of both sides of an exchange. */
interface LockerThings {
  by: InPlace;
  /** The sheet that describes what comes, where one does. */
  sheet: Sheet | undefined;
  /** What comes and what was, by name. */
  name: string;
  was: string;
}

/** Looks up both sides of an exchange; nothing where the locker does not hold one of them any more. */
export async function lockerThings(
  db: Db,
  of: Exchanged,
  by: NamedInPlace,
): Promise<LockerThings | undefined> {
  const [held, units] = await Promise.all([listSheets(db), listGear(db)]);
  const sheetOf = (id: string | null) => held.find((s) => s.sheet.id === id)?.sheet;
  const unitOf = (serial: string) => units.find((u) => u.serial === serial);
  const was = of.is === 'sheet' ? sheetOf(of.id)?.name : unitOf(of.serial)?.name;
  if (was === undefined) return undefined;
  if (by.is === 'kind') {
    const kind = findKind(by.kind);
    return kind && { by, sheet: undefined, name: kind.name, was };
  }
  if (by.is === 'sheet') {
    const sheet = sheetOf(by.id);
    return sheet && { by: { is: 'sheet', sheet }, sheet, name: sheet.name, was };
  }
  const unit = unitOf(by.serial);
  if (!unit) return undefined;
  const sheet = sheetOf(unit.sheet);
  return { by: { is: 'unit', unit: unitInPlace(unit, sheet) }, sheet, name: unit.name, was };
}
