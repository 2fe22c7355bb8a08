import { kindOf } from '../../kinds';
import { settingOf, stateIn } from '../../rig/device-state';
import type { Device, Rig, Sound } from '../../rig/schema';
import { settingWords } from '../../rig/words';
import { engagedIn } from '../../songs';
import { type Block, heading, table, words } from './blocks';
import type { PartMaker } from './part';

/** The knobs of a device in a sound, by the clock, and its switches and choices. */
const settingsIn = (device: Device, sound: Sound): string =>
  kindOf(device.kind)
    .parameters.flatMap((p) => {
      const value = settingOf(kindOf(device.kind), device, stateIn(sound, device.id), p.id);
      return value === undefined ? [] : [settingWords(device.kind, p.id, value)];
    })
    .join(', ');

/** What a sound sets, so that a stranger can set it: what is engaged, and where every knob of it stands. */
function sheetOf(rig: Rig, sound: Sound): Block[] {
  const engaged = new Set(engagedIn(rig, sound));
  const rows = rig.devices.flatMap((d) => {
    const isOff = !kindOf(d.kind).alwaysOn && !kindOf(d.kind).stateWords && !engaged.has(d.name);
    const settings = settingsIn(d, sound);
    return isOff || kindOf(d.kind).destination || (!settings && !engaged.has(d.name))
      ? []
      : [[d.name, engaged.has(d.name) ? 'engaged' : 'always on', settings]];
  });
  return [
    heading(sound.name),
    ...(sound.notes ? [words(sound.notes)] : []),
    table(['Device', 'Stands', 'Knobs and switches'], rows, 0),
  ];
}

export const settings: PartMaker = {
  id: 'settings',
  title: 'Settings of each sound',
  isThere: ({ rig }) => rig.sounds.length > 0,
  blocks: ({ rig }) => rig.sounds.flatMap((s) => sheetOf(rig, s)),
};
