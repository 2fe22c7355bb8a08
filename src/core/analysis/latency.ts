import { at } from '../outcome';
import { withPrefix, fixed } from '../units';
import { dbuOfVolts } from '../units';
import { fixes, type Remark } from '../findings/finding';
import { sourceDevice } from '../rig/source-id';
import { APART_MS, FAR_UNDER_DB, firstNotchHertz } from '../signal/combing';
import type { Remarker } from './evidence';
import { wetFixes } from './parallel';

/** From here on a player feels the delay under the fingers. */
export const FELT_MS = 10;

/** Total latency that a player feels, and copies of one source that meet late and comb. */
export const latencyRemarks: Remarker = ({ ctx, stations, destinations, wantsFixes }) => {
  const remarks: Remark[] = [];
  for (const d of destinations) {
    if (d.latencyMs !== null && d.latencyMs > FELT_MS) {
      remarks.push({
        rule: 'latency',
        severity: 'caution',
        subjects: [d.device],
        what: `${d.name} hears the playing late.`,
        why: `${fixed(d.latencyMs)} ms in all; over ${FELT_MS} ms a player feels it.`,
      });
    }
  }
  const seen = new Set<number>();
  for (const s of ctx.flowing.circuit.nets) {
    const present = ctx.flowing.present(s.index);
    if (seen.has(s.index) || present.flows.length < 2) continue;
    seen.add(s.index);
    if (
      !at(ctx.flowing.circuit.sections, s.section).drivers.some(
        (dr) =>
          dr.net === s.index || at(ctx.flowing.circuit.sections, s.section).drivers.length > 1,
      )
    )
      continue;
    // Only where the copies meet: no single output brings both already.
    const ways = at(ctx.flowing.circuit.sections, s.section).drivers.flatMap((dr) => dr.stages);
    if (ways.length < 2 || ways.some((w) => bringsBoth(ctx.flowing.present(w.from).flows)))
      continue;
    const dry = present.flows.filter((f) => !f.wet && !f.side);
    for (const a of dry) {
      for (const b of dry) {
        const apart = b.latencyMs - a.latencyMs;
        // A mix that still holds dry is another matter, with a milder word: see parallel.
        if (
          a.source !== b.source ||
          a.besideWet !== b.besideWet ||
          apart <= APART_MS ||
          Math.abs(dbuOfVolts(a.volts[1]) - dbuOfVolts(b.volts[1])) > FAR_UNDER_DB
        )
          continue;
        const device = at(s.points, 0).device;
        remarks.push({
          rule: 'comb',
          severity: 'fault',
          subjects: [device, sourceDevice(a.source)],
          what: `${ctx.device(a.source).name} reaches ${ctx.device(device).name} twice, ${fixed(apart)} ms apart.`,
          why:
            `Both copies are dry, so they cancel at ${withPrefix(firstNotchHertz(apart), 'Hz')} ` +
            'and its odd multiples.',
          ...(wantsFixes && fixes(wetFixes(ctx, new Set(stations.map((st) => st.id))))),
        });
      }
    }
  }
  return remarks;
};

const bringsBoth = (
  flows: readonly { source: string; wet?: string; latencyMs: number }[],
): boolean => {
  const dry = flows.filter((f) => !f.wet);
  return dry.some((a) =>
    dry.some((b) => a.source === b.source && Math.abs(a.latencyMs - b.latencyMs) > APART_MS),
  );
};
