import { at } from '../outcome';
import type { Fix, Remark } from '../findings/finding';
import { kindOf, settingWith } from '../kinds';
import { sourceDevice } from '../rig/source-id';
import type { Remarker } from './evidence';
import type { SoundContext } from '../signal/sound-context';

/** Copies of one source that arrive together with opposite polarity in one jack. */
export const polarityRemarks: Remarker = ({ ctx }) => {
  const remarks: Remark[] = [];
  const heard = new Set<string>();
  for (const net of ctx.flowing.circuit.nets) {
    for (const source of ctx.flowing.present(net.index).cancelled) {
      const device = at(net.points, 0).device;
      if (heard.has(`${device} ${source}`)) continue;
      heard.add(`${device} ${source}`);
      remarks.push({
        rule: 'polarity',
        severity: 'fault',
        subjects: [device, sourceDevice(source)],
        what: `Two copies of ${ctx.device(source).name} meet at ${ctx.device(device).name} with opposite polarity.`,
        why: 'They arrive at the same time, one turned over, so they cancel.',
        fix: turnFix(
          ctx,
          ctx.stations.map((s) => s.device),
        ),
      });
    }
  }
  return remarks;
};

/** Turns the polarity switch of a device on the way that has one. */
export function turnFix(ctx: SoundContext, devices: readonly string[]): Fix | undefined {
  for (const id of devices) {
    const device = ctx.device(id);
    const turn = settingWith(kindOf(device.kind), 'polarity');
    if (!turn) continue;
    const now =
      (ctx.sound.states[id]?.settings?.[turn.id] ?? device.settings?.[turn.id] ?? turn.initial) ===
      true;
    return {
      words: `${now ? 'Set back' : 'Turn'} the polarity switch of ${device.name}`,
      edits: [{ edit: 'setSetting', device: id, setting: turn.id, value: !now }],
    };
  }
  return undefined;
}
