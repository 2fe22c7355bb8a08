import { sheetsHere } from './clip';
import type { Edit } from './edits';
import type { Rig } from './schema';
import { kindIdOf, type Sheet, sheetIdOf } from './sheets';

/**
 * The edits that put another sheet in the place of one, in every device that is of it: leads go to the
 * jacks that do the same, what the new one has no jack or knob for goes. Where the rig holds another
 * sheet of the new one's id, both stay, and the new one gets a free id. No edits where nothing is of it.
 */
export function substitution(rig: Rig, of: string, by: Sheet): Edit[] {
  const devices = rig.devices.filter((d) => sheetIdOf(d.kind) === of);
  if (!devices.length) return [];
  const { sheets, kindHere } = sheetsHere(rig, [by]);
  const kind = kindHere(kindIdOf(by));
  return [
    ...sheets.map((sheet): Edit => ({ edit: 'putSheet', sheet })),
    ...devices.map((d): Edit => ({ edit: 'replaceDevice', device: d.id, kind, name: d.name })),
  ];
}
