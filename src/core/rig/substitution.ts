import { sheetsHere } from './clip';
import type { Edit } from './edits';
import type { Device, Rig } from './schema';
import { kindIdOf, type Sheet, sheetIdOf } from './sheets';

/** What is exchanged: every device of a sheet, or those that a unit stands for. */
export type Exchanged = { is: 'sheet'; id: string } | { is: 'unit'; serial: string };

/** A unit as it comes into a rig: what is written down of it, and the sheet that says what it is. */
export interface UnitInPlace {
  serial: string;
  owner?: string;
  grams?: number;
  value?: number;
  sheet?: Sheet;
}

/** What takes its place. A kind is one that ships. */
export type InPlace =
  { is: 'sheet'; sheet: Sheet } | { is: 'kind'; kind: string } | { is: 'unit'; unit: UnitInPlace };

/** The devices of a rig that an exchange is about. */
export const exchangedDevices = (rig: Rig, of: Exchanged): Device[] =>
  rig.devices.filter((d) =>
    of.is === 'sheet' ? sheetIdOf(d.kind) === of.id : d.gear?.serial?.trim() === of.serial,
  );

/**
 * The edits that put something else in the place of devices: leads go to the jacks that do the same,
 * what the new one has no jack or knob for goes. Where the rig holds another sheet of the new one's id,
 * both stay, and the new one gets a free id. What was written down of the unit (serial number, owner,
 * weight, value) goes with it; a unit brings its own, and one whose sheet is not known, or is that of
 * the device, stands there as the device does. No edits where there is nothing to exchange.
 */
export function substitution(rig: Rig, of: Exchanged, by: InPlace): Edit[] {
  const devices = exchangedDevices(rig, of);
  if (!devices.length) return [];
  const sheet = by.is === 'sheet' ? by.sheet : by.is === 'unit' ? by.unit.sheet : undefined;
  const isOther = (d: Device) => by.is === 'kind' || (sheet && sheetIdOf(d.kind) !== sheet.id);
  const { sheets, kindHere } = sheetsHere(
    rig,
    sheet && (by.is === 'sheet' || devices.some(isOther)) ? [sheet] : [],
  );
  const kind = by.is === 'kind' ? by.kind : sheet && kindHere(kindIdOf(sheet));
  return [
    ...sheets.map((s): Edit => ({ edit: 'putSheet', sheet: s })),
    ...devices.flatMap((d): Edit[] => {
      const becomes = kind !== undefined && (by.is === 'sheet' || isOther(d));
      return [
        ...(becomes ? [{ edit: 'replaceDevice', device: d.id, kind, name: d.name } as const] : []),
        ...recordOf(d, by),
      ];
    }),
  ];
}

/** What is written down of the unit that stands there then; no edit where nothing is, before or after. */
function recordOf(device: Device, by: InPlace): Edit[] {
  const { serial: _s, owner: _o, grams: _g, value: _v, ...rest } = device.gear ?? {};
  const unit = by.is === 'unit' ? withoutSheet(by.unit) : {};
  if (by.is !== 'unit' && !device.gear?.serial) return [];
  return [{ edit: 'setDevice', device: device.id, gear: { ...rest, ...unit } }];
}

/** A unit of the locker as it comes into a rig: what is said of it, and the sheet that says what it is. */
export const unitInPlace = (
  u: { serial: string; owner: string; grams: number | null; value: number | null },
  sheet: Sheet | undefined,
): UnitInPlace => ({
  serial: u.serial,
  ...(u.owner && { owner: u.owner }),
  ...(u.grams !== null && { grams: u.grams }),
  ...(u.value !== null && { value: u.value }),
  ...(sheet && { sheet }),
});

const withoutSheet = ({ sheet: _sheet, ...unit }: UnitInPlace) => unit;
