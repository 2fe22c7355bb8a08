import { byId, leadsInto } from '../rig/find';
import { at as entryAt, sure } from '../outcome';
import { type Circuit, type Section, solveSection } from '../circuit';
import type { Remark } from '../findings/finding';
import { insertFix } from '../findings/insert-fix';
import { resolveState, stateIn } from '../rig/device-state';
import { kindOf } from '../kinds';
import { allOf, decibels, fixed, withPrefix } from '../units';
import type { Evidence, Remarker } from './evidence';
import type { SoundContext } from '../signal/sound-context';
import { pointFigures, type StationFigures } from '../signal/station-figures';

/**
 * Bridging, an input of ten times the source's impedance, loses 0.83 dB. A little more is the same
 * sound a little softer; from here on it is worth a word.
 */
export const WORTH_SAYING_LOSS_DB = -1.5;
/** From here on it is a load that nobody meant; a bare pickup into a usual input stays under it. */
export const REAL_LOSS_DB = -3;

/**
 * Level lost into inputs that load what feeds them. Where a pickup feeds a kind that wants to load
 * it, or the volume is part of the loss on purpose (a pot), nothing is said.
 */
export const loadingRemarks: Remarker = ({ ctx, stations, tones }) => [
  ...blendRemarks(ctx, tones),
  // Each input by itself; both sides of one pair that one box feeds are one matter.
  ...distinct(
    stations.flatMap((s) => s.ins.flatMap((jack) => loadedAt({ ctx, stations, tones }, s, jack))),
  ),
];

const distinct = (remarks: readonly Remark[]): Remark[] =>
  [...new Map(remarks.toReversed().map((r) => [r.subjects.join(), r])).values()].toReversed();

/** What an input of a station takes of what feeds it. */
function loadedAt(
  { ctx, stations, tones }: Pick<Evidence, 'ctx' | 'stations' | 'tones'>,
  s: StationFigures,
  jack: string,
): Remark[] {
  const input = pointFigures(ctx, s.device, jack);
  if (
    input.lossDb === null ||
    input.lossDb >= WORTH_SAYING_LOSS_DB ||
    input.sourceOhms === null ||
    input.loadOhms === null
  )
    return [];
  const device = ctx.device(s.device);
  const section = entryAt(
    ctx.flowing.circuit.sections,
    entryAt(ctx.flowing.circuit.nets, ctx.at(s.device, jack).net).section,
  );
  const listens = tones.some(
    (t) => t.listener === s.device && section.drivers.some((d) => d.device === t.driver),
  );
  const byPot = section.resistors.length > 0;
  const meant = tones.some(
    (t) =>
      section.drivers.some((d) => d.device === t.driver) &&
      kindOf(ctx.device(t.listener).kind).wantsBarePickup &&
      stations.some((o) => o.device === t.listener && o.state === 'engaged'),
  );
  if (!listens || byPot || meant || section.drivers.length > 1 || input.loadOhms < 100) return [];
  // What hangs beside it at rest is told as that: see blendRemarks.
  if (restingIn(ctx, section).length) return [];
  const driver = entryAt(section.drivers, 0);
  const isReal = input.lossDb <= REAL_LOSS_DB;
  if (driver.source?.bare && !isReal) return [];
  const lead = leadsInto(ctx.rig, s.device).find((l) => l.to.jack === jack);
  return [
    {
      rule: 'loading' as const,
      severity: isReal ? ('caution' as const) : ('advice' as const),
      subjects: [s.device, driver.device],
      what: `${device.name} loads ${ctx.device(driver.device).name}.`,
      why:
        `${withPrefix(input.sourceOhms, 'Ω')} feeds ${withPrefix(input.loadOhms, 'Ω')} in ` +
        `all, which costs ${fixed(-input.lossDb)} dB at 1 kHz; ten times the source ` +
        'impedance would cost under 0.9 dB.',
      fix:
        lead &&
        insertFix(ctx.rig, 'buffer', 'Buffer', lead.id, `Put a buffer in front of ${device.name}`),
    },
  ];
}

/** Instruments that are plugged into a section and rest: their coils hang on it. */
function restingIn(ctx: SoundContext, section: Section): string[] {
  const { circuit } = ctx.flowing;
  const coils = section.nets.filter((n) => entryAt(circuit.nets, n).shunts.some((s) => s.henries));
  if (!coils.length) return [];
  return ctx.rig.devices
    .filter((d) => kindOf(d.kind).job === 'instrument')
    .filter((d) => !section.drivers.some((x) => x.device === d.id))
    .map((d) => d.id)
    .filter((id) =>
      coils.some((n) => entryAt(circuit.nets, n).points.some((p) => p.device === id)),
    );
}

/** A circuit without the coils that rest in it. */
const withoutResting = (circuit: Circuit): Circuit => ({
  ...circuit,
  nets: circuit.nets.map((n) => ({ ...n, shunts: n.shunts.filter((s) => !s.henries) })),
});

/**
 * Sources that one passive point joins load each other, whether they play or rest; what each that
 * plays loses by the others, found by taking them away.
 */
function blendRemarks(ctx: SoundContext, tones: Evidence['tones']): Remark[] {
  const { circuit } = ctx.flowing;
  return circuit.sections.flatMap((section): Remark[] => {
    const plays = [...new Set(section.drivers.map((d) => d.device))].sort();
    const rests = restingIn(ctx, section).sort();
    const devices = [...plays, ...rests];
    if (!plays.length || devices.length < 2) return [];
    const listener = tones.find(
      (t) =>
        plays.includes(t.driver) &&
        section.nets.includes(
          circuit.netAt(t.listener, kindOf(ctx.device(t.listener).kind).through?.in ?? '')?.index ??
            -1,
        ),
    )?.listener;
    if (!listener || section.nets.some((n) => entryAt(circuit.nets, n).coils.length)) return [];
    const net = sure(circuit.netAt(listener, kindOf(ctx.device(listener).kind).through!.in)).index;
    const at = section.nets.indexOf(net);
    const lost = section.drivers.map((d, k) => {
      const bare = withoutResting(circuit);
      const alone = solveSection(bare, { ...section, drivers: [d] }, 1000).transfer(0, at);
      return {
        device: d.device,
        db: decibels(ctx.flowing.solution(section, 1000).transfer(k, at) / alone),
      };
    });
    if (lost.every((l) => l.db > WORTH_SAYING_LOSS_DB)) return [];
    const name = (id: string) => ctx.device(id).name;
    const joiner = [...ctx.rig.devices]
      .sort(byId)
      .find(
        (d) =>
          kindOf(d.kind).jacks.filter(
            (j) =>
              j.direction === 'in' && section.nets.includes(circuit.netAt(d.id, j.id)?.index ?? -1),
          ).length > 1,
      );
    return [
      {
        rule: 'blend-loading',
        severity: 'caution',
        subjects: [joiner?.id ?? listener, ...devices],
        what: rests.length
          ? `${allOf(rests.map(name))}, at rest, ${rests.length > 1 ? 'load' : 'loads'} ` +
            `${allOf(plays.map(name))}${joiner ? ` at ${joiner.name}` : ''}.`
          : `${allOf(devices.map(name))} load each other${joiner ? ` at ${joiner.name}` : ''}.`,
        why:
          `Joined by metal, ${allOf(lost.map((l) => `${name(l.device)} loses ${fixed(-l.db)} dB`))} ` +
          'at 1 kHz to the other, and whichever is turned down at the instrument turns both down.',
        fix:
          joiner &&
          kindOf(joiner.kind)
            .passes(
              resolveState(kindOf(joiner.kind), joiner, stateIn(ctx.sound, joiner.id)),
              () => true,
            )
            .every((p) => p.is === 'wire') &&
          ['a', 'b', 'out'].every((j) => kindOf(joiner.kind).jacks.some((x) => x.id === j))
            ? {
                words: `Replace ${joiner.name} by an active mixer`,
                edits: [{ edit: 'replaceDevice', device: joiner.id, kind: 'mixer-line' }],
              }
            : undefined,
      },
    ];
  });
}
