import { kindOf } from '../../kinds';
import { isEngaged, settingOf, stateIn } from '../../rig/device-state';
import type { Device, Rig, Sound } from '../../rig/schema';
import { settingWords } from '../../rig/words';
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

/** How a device stands in a sound, in the words of its kind. */
function standing(device: Device, sound: Sound): string {
  const kind = kindOf(device.kind);
  if (kind.alwaysOn) return 'always on';
  const { on, off } = kind.stateWords ?? { on: 'engaged', off: 'bypassed' };
  return isEngaged(kind, device, stateIn(sound, device.id)) ? on : off;
}

/**
 * What a sound sets, so that a stranger can set it: what is at work, and where every knob of it
 * stands. What rests and the destinations are left out; an amplifier on standby is said to be.
 */
function sheetOf(rig: Rig, sound: Sound): Block[] {
  const rows = rig.devices.flatMap((d) => {
    const kind = kindOf(d.kind);
    const isAtWork = kind.alwaysOn || isEngaged(kind, d, stateIn(sound, d.id));
    const knobs = settingsIn(d, sound);
    const isListed = isAtWork ? knobs || !kind.alwaysOn : kind.job === 'amp';
    return isListed && !kind.destination
      ? [[d.name, standing(d, sound), isAtWork ? knobs : '']]
      : [];
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
