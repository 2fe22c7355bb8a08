import { at } from '../outcome';
import { type Fix, fixes, type Remark } from '../findings/finding';
import { kindOf, settingWith } from '../kinds';
import { sourceDevice } from '../rig/source-id';
import type { Remarker } from './evidence';
import { againWords, broughtBack, unheardIn } from './missing-leads';
import { settingOf, stateIn } from '../rig/device-state';
import type { SoundContext } from '../signal/sound-context';

/** Copies of one source that arrive together with opposite polarity in one jack. */
export const polarityRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const remarks: Remark[] = [];
  const unheard = unheardIn({ ctx, stations, destinations });
  const heard = new Set<string>();
  for (const net of ctx.flowing.circuit.nets) {
    for (const source of ctx.flowing.present(net.index).cancelled) {
      const device = at(net.points, 0).device;
      if (heard.has(`${device} ${source}`)) continue;
      heard.add(`${device} ${source}`);
      const ways = turnFixes(
        ctx,
        ctx.stations.map((s) => s.device),
      );
      const backs = ways.map(({ edits }) => broughtBack(ctx, edits, unheard));
      const back = backs.find((b) => b.length) ?? [];
      remarks.push({
        rule: 'polarity',
        severity: 'fault',
        subjects: [device, sourceDevice(source), ...back],
        about: `${device}+${sourceDevice(source)}`,
        what: `Two copies of ${ctx.device(source).name} meet at ${ctx.device(device).name} with opposite polarity.`,
        why: `They arrive at the same time, one turned over, so they cancel.${againWords(ctx, back)}`,
        ...fixes(ways),
      });
    }
  }
  return remarks;
};

/** So many devices whose switch could be turned are offered. */
const MOST_DEVICES = 3;

/**
 * Turns the polarity switch of a device on the way that has one: for every sound, as a switch on a box
 * is turned, or for this one, as a device that is programmed can be.
 */
export function turnFixes(ctx: SoundContext, devices: readonly string[]): Fix[] {
  const turned = [...new Set(devices)].flatMap((id) => {
    const turn = settingWith(kindOf(ctx.device(id).kind), 'polarity');
    return turn ? [{ device: ctx.device(id), turn }] : [];
  });
  return turned.slice(0, MOST_DEVICES).flatMap(({ device, turn }): Fix[] => {
    const kind = kindOf(device.kind);
    const now = settingOf(kind, device, stateIn(ctx.sound, device.id), turn.id) === true;
    const words = `${now ? 'Set back' : 'Turn'} the polarity switch of ${device.name}`;
    const set = { edit: 'setSetting' as const, device: device.id, setting: turn.id, value: !now };
    return [
      { words, edits: [set] },
      ...(ctx.rig.sounds.includes(ctx.sound)
        ? [{ words: `${words} in ${ctx.sound.name}`, edits: [{ ...set, sound: ctx.sound.id }] }]
        : []),
    ];
  });
}
