import { at, sure } from '../outcome';
import type { Fix, Remark } from '../findings/finding';
import { kindOf, settingWith } from '../kinds';
import { byId } from '../rig/find';
import { sourceDevice } from '../rig/source-id';
import type { Remarker } from './evidence';
import type { SoundContext } from '../signal/sound-context';

const LIKE_MS = 0.5;

/**
 * Copies of one source that arrive together with opposite polarity, in one jack or in the air of
 * the stage.
 */
export const polarityRemarks: Remarker = ({ ctx, destinations }) => {
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
        why: 'They arrive at the same time, one turned over, so they cancel. Turn one of them.',
        fix: turnFix(
          ctx,
          ctx.stations.map((s) => s.device),
        ),
      });
    }
  }
  const onStage = destinations
    .filter((d) => d.hears === 'stage' && d.polarity !== null && d.latencyMs !== null)
    .sort((a, b) => byId({ id: a.device }, { id: b.device }));
  for (const [i, a] of onStage.entries()) {
    for (const b of onStage.slice(i + 1)) {
      const shared = a.sources.find((s) => b.sources.includes(s));
      if (!shared || a.polarity === b.polarity || Math.abs(a.latencyMs! - b.latencyMs!) > LIKE_MS)
        continue;
      const only = [...a.route, ...b.route].filter(
        (s) => !(a.route.includes(s) && b.route.includes(s)),
      );
      remarks.push({
        rule: 'polarity',
        severity: 'fault',
        subjects: [a.device, b.device],
        what: `${a.name} and ${b.name} push and pull against each other.`,
        why:
          `${ctx.device(shared).name} reaches both at the same time, turned over in one of ` +
          'them, so low notes cancel in the air between. Use a splitter’s polarity switch.',
        fix: turnFix(
          ctx,
          [...a.route, ...only].map((id) => sure(ctx.stations.find((s) => s.id === id)).device),
        ),
      });
    }
  }
  return remarks;
};

/** Turns the polarity switch of a device on the way that has one. */
function turnFix(ctx: SoundContext, devices: string[]): Fix | undefined {
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
