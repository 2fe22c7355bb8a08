import type { Flow } from '../signal';
import type { Fix, Remark } from '../findings/finding';
import { kindOf, settingWith } from '../kinds';
import { dbuOfVolts, fixed, withPrefix } from '../units';
import { FAR_UNDER_DB, firstNotchHertz } from '../signal/combing';
import { settingOf, stateIn } from '../rig/device-state';
import type { Remarker } from './evidence';
import type { SoundContext } from '../signal/sound-context';

/** Returns of a parallel way that still carry dry signal beside their effect: they should be 100 % wet. */
export const parallelRemarks: Remarker = ({ ctx }) => {
  const remarks: Remark[] = [];
  const { circuit } = ctx.flowing;
  for (const section of circuit.sections) {
    const ways = section.drivers.flatMap((d) => d.stages).filter((s) => !s.stage.muted);
    if (ways.length < 2) continue;
    const dry = (from: number): Flow[] => ctx.flowing.present(from).flows.filter((f) => !f.wet);
    for (const way of ways) {
      for (const late of dry(way.from)) {
        if (late.besideWet === undefined || late.besideWet === way.device) continue;
        for (const other of ways) {
          if (other === way || other.from === way.from) continue;
          const plain = dry(other.from).find(
            (f) => f.source === late.source && f.besideWet !== late.besideWet,
          );
          if (!plain) continue;
          const level = dbuOfVolts(late.volts[1]) + way.stage.gainDb + way.stage.outputDb;
          const beside = dbuOfVolts(plain.volts[1]) + other.stage.gainDb + other.stage.outputDb;
          if (level < beside - FAR_UNDER_DB) continue;
          const apart = Math.abs(
            late.latencyMs + way.stage.latencyMs - plain.latencyMs - other.stage.latencyMs,
          );
          remarks.push({
            rule: 'parallel-dry',
            severity: 'caution',
            subjects: [late.besideWet, way.device],
            about: `${late.besideWet}+${way.device}`,
            what: `${ctx.device(late.besideWet).name} runs beside the dry signal and still carries dry of its own.`,
            why:
              `At ${ctx.device(way.device).name} its dry part stands ${fixed(level - beside)} dB ` +
              'against the straight ' +
              ('one' +
                (apart > 0.05
                  ? ` and comes ${fixed(apart, 2)} ms apart, so they cancel ` +
                    `at ${withPrefix(firstNotchHertz(apart), 'Hz')} and its odd multiples`
                  : ', so the level changes with the mix') +
                '.'),
            fix: wetFix(ctx, late.besideWet),
          });
        }
      }
    }
  }
  return remarks.filter((r, i) => remarks.findIndex((x) => x.about === r.about) === i);
};

/** So many mixes are offered to be turned. */
const MIXES = 3;

/** The mixes of devices at some stations that are not at their wet end yet, each turned there. */
export const wetFixes = (ctx: SoundContext, stations: ReadonlySet<string>): Fix[] =>
  [...new Set(ctx.stations.filter((s) => stations.has(s.id)).map((s) => s.device))]
    .flatMap((id) => {
      const kind = kindOf(ctx.device(id).kind);
      const mix = settingWith(kind, 'mix of dry and wet');
      const fix = wetFix(ctx, id);
      const now = mix && settingOf(kind, ctx.device(id), stateIn(ctx.sound, id), mix.id);
      return fix && mix?.type === 'knob' && now !== mix.max ? [fix] : [];
    })
    .slice(0, MIXES);

/** Sets a device's mix to its wet end in this sound. */
export function wetFix(ctx: SoundContext, id: string): Fix | undefined {
  const device = ctx.device(id);
  const mix = settingWith(kindOf(device.kind), 'mix of dry and wet');
  if (mix?.type !== 'knob') return undefined;
  return {
    words: `Set ${device.name} to 100 % wet`,
    edits: [
      {
        edit: 'setSetting',
        device: id,
        ...(ctx.rig.sounds.includes(ctx.sound) && { sound: ctx.sound.id }),
        setting: mix.id,
        value: mix.max,
      },
    ],
  };
}
