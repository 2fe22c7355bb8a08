import { type Fix, fixes, type Remark } from '../findings/finding';
import { type Jack, type Job, type Kind, kindOf } from '../kinds';
import { byKey, reachable } from '../graph';
import { freeJacks } from '../rig';
import { isEngaged, stateIn } from '../rig/device-state';
import { byId, deviceOf, isPlugged, leadFrom, leadsInto } from '../rig/find';
import { sourceDevice } from '../rig/source-id';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Device, End, Rig } from '../rig/schema';
import type { SoundContext } from '../signal/sound-context';
import type { Evidence, Remarker } from './evidence';
import {
  againWords,
  broughtBack,
  isSignal,
  joinFix,
  leadsToAll,
  looseSources,
  missingLeads,
  openingsBefore,
  promisedAt,
  unheardIn,
  type Unheard,
} from './missing-leads';
import { allOf } from '../units';

/** Devices that are there to be played through: with nothing on their output they are of no use. */
export const PLAYED_THROUGH: ReadonlySet<Job> = new Set<Job>([
  ...(['fuzz', 'pitch', 'filter', 'compressor', 'drive', 'boost', 'gate', 'eq'] as const),
  ...(['volume', 'modulation', 'delay', 'reverb'] as const),
]);
/** So many ways on are offered in all: each is tried. */
const MOST_WAYS = 5;
/** So many inputs are offered. */
const OFFERED = 3;

/**
 * Effects that signal goes into and nothing comes out of, since no lead is in their output: a loop
 * of which one plug hangs, a chain with one lead missing. Instruments and other boxes likewise,
 * where a destination hears nothing that does, on a copy, with a lead from there. And a tuner that is
 * there and not plugged.
 */
export const openEndRemarks: Remarker = ({ ctx, stations, destinations }) => {
  const { rig } = ctx;
  const unheard = unheardIn({ ctx, stations, destinations });
  const loose = looseSources(ctx);
  const holds = (device: string, jack: string) => isPlugged(rig, device, jack);
  const ends = rig.devices.flatMap((device): OpenEnd[] => {
    const kind = kindOf(device.kind);
    // A switcher whose loops are plugged goes on by its output.
    const sends = new Set(kind.hosts ? [] : kind.loops?.flatMap((l) => l.send));
    const outs = kind.jacks.filter(
      (j) => j.direction === 'out' && j.signal === 'audio' && !sends.has(j.id),
    );
    if (kind.destination || kind.job === 'amp') return [];
    // What goes on over a speaker lead has its line output for what is not there.
    const goesOn = kind.jacks.filter((j) => j.direction === 'out' && isSignal(j));
    if (
      device.host !== undefined ||
      !outs.length ||
      goesOn.some((j) => !sends.has(j.id) && holds(device.id, j.id))
    )
      return [];
    const isFed =
      loose.includes(device.id) ||
      stations.some((s) => s.device === device.id && (s.source || s.input?.levelDbu));
    if (!isFed) return [];
    const lost = lostAt(ctx, device.id, outs, unheard);
    // Who is promised another instrument misses that, and not one that lies there for nobody.
    const isSpare = loose.includes(device.id) && !endsOf(ctx, device.id).length;
    const silent = unheard.destinations.filter((d) => !isSpare || !promisedAt(ctx, d).length);
    const concerned = [
      ...new Set([...silent, ...[device.id, ...lost].flatMap((s) => endsOf(ctx, s))]),
    ].sort();
    const perDestination = concerned.map((d) => missingLeads(ctx, d, device.id));
    const leads = perDestination.flat();
    const { through } = kind;
    const isOnlyThrough = through !== undefined && PLAYED_THROUGH.has(kind.job);
    if (!leads.length && !isOnlyThrough) return [];
    // Where nobody misses it, it can lead on to anybody.
    const anywhere =
      isOnlyThrough && !leads.length
        ? [...destinations]
            .sort((a, b) => byId({ id: a.device }, { id: b.device }))
            .flatMap((d) => missingLeads(ctx, d.device, device.id))
        : [];
    const ways = isOnlyThrough
      ? [
          ...anywhere.slice(0, 2),
          ...waysOn(rig, device).map((to) =>
            joinFix(ctx, { device: device.id, jack: through.out }, to),
          ),
        ]
      : [];
    // Which lead is missing is known only where one would do for everybody who could be meant.
    const meant = concerned.filter((_, i) => perDestination[i]?.length);
    const sure = leads
      .filter((l) => leadsToAll(ctx, l, meant))
      .map((l) => ({ l, back: broughtBack(ctx, l.edits, { ...unheard, destinations: concerned }) }))
      .find(({ back }) => meant.every((d) => back.includes(d)));
    const likely = leads.slice(0, MOST_WAYS - 1);
    const offered = [...new Set([...likely, ...(sure ? [sure.l] : []), ...ways])];
    const back = sure?.back ?? [];
    const remark = openEnd(ctx, device, offered.slice(0, MOST_WAYS), back);
    return [{ remark, back, isSpare, isLeg: kind.job === 'tuner' }];
  });
  return [
    ...likeliest(ends),
    ...selectedOpen(ctx, unheard, destinations),
    ...restingLoose(ctx),
    ...loneTuner(rig),
  ];
};

/** An open end, what a lead from it brings back, and whether it is an instrument that may lie there. */
interface OpenEnd {
  remark: Remark;
  back: readonly string[];
  isSpare: boolean;
  /** A tuner at the end of a leg of its own: its output is free on purpose. */
  isLeg: boolean;
}

/**
 * Open ends without the instruments that merely lie there, as the one that is changed for another does,
 * and without tuners that end a leg: where a lead from some box brings back all that one of them would let be
 * heard, that lead is missing.
 */
function likeliest(ends: readonly OpenEnd[]): Remark[] {
  const mayEnd = (e: OpenEnd) => e.isSpare || e.isLeg;
  const boxes = ends.filter((e) => !mayEnd(e));
  return ends
    .filter(
      (e) =>
        !mayEnd(e) ||
        !boxes.some((b) =>
          e.back.every((id) => b.back.includes(id) || e.remark.subjects[0] === id),
        ),
    )
    .map((e) => e.remark);
}

/** Instruments that are heard nowhere, though what they play stands at an output of a box. */
function lostAt(
  ctx: SoundContext,
  device: string,
  outs: readonly Jack[],
  { sources }: Unheard,
): string[] {
  const here = new Set(
    outs.flatMap((j) => ctx.at(device, j.id).flows.map((f) => sourceDevice(f.source))),
  );
  return sources.filter((id) => here.has(id));
}

/** Destinations that are promised to hear an instrument in this sound. */
const endsOf = ({ rig, sound }: SoundContext, source: string): string[] =>
  (rig.promises ?? []).flatMap((p) =>
    p.type === 'hears' && p.source === source && (p.sounds?.includes(sound.id) ?? true)
      ? [p.destination]
      : [],
  );

/** `back` are destinations that hear something again with the first of the ways on. */
function openEnd(
  ctx: SoundContext,
  device: Device,
  ways: readonly Fix[],
  back: readonly string[],
): Remark {
  const isSource = kindOf(device.kind).job === 'instrument';
  return {
    rule: 'open-end',
    severity: 'fault',
    subjects: [device.id, ...back],
    about: device.id,
    what: isSource
      ? `${device.name} is played, and nothing is plugged into it.`
      : `${device.name} gets the signal, and nothing is plugged into its output.`,
    why:
      (isSource ? 'What it plays is heard nowhere.' : 'What goes into it is heard nowhere.') +
      againWords(ctx, back),
    ...fixes(ways),
  };
}

/** Boxes that choose where signal goes. */
const CHOOSES: ReadonlySet<Job> = new Set<Job>(['splitter', 'switcher']);

/**
 * Boxes that choose where signal goes and in this sound choose an output that no lead is in, while other
 * outputs are plugged: what is played into them is heard nowhere. In a sound that is promised to be
 * silent that is on purpose.
 */
function selectedOpen(
  ctx: SoundContext,
  unheard: Unheard,
  destinations: Evidence['destinations'],
): Remark[] {
  const { rig } = ctx;
  const isMeant = rig.promises?.some(
    (p) => p.type === 'muted-silent' && (p.sounds?.includes(ctx.sound.id) ?? true),
  );
  if (isMeant) return [];
  return rig.devices.flatMap((device): Remark[] => {
    const { job, jacks, loops } = kindOf(device.kind);
    if (!CHOOSES.has(job) || device.host !== undefined) return [];
    const outs = jacks
      .filter((j) => j.direction === 'out' && j.signal === 'audio')
      .filter((j) => !loops?.some((l) => l.send.includes(j.id)));
    const isOpen = (jack: string) => !leadFrom(rig, device.id, jack);
    const live = outs.filter((j) => ctx.at(device.id, j.id).flows.length > 0);
    const plays = live.flatMap((j) => ctx.at(device.id, j.id).flows.map((f) => f.source));
    const lost = unheard.sources.filter((id) => plays.some((s) => sourceDevice(s) === id));
    if (!lost.length || live.some((j) => !isOpen(j.id)) || outs.every((j) => isOpen(j.id)))
      return [];
    const names = allOf(live.map((j) => j.label));
    // A lead that is missing on the way to somebody whom nothing reaches is told with that.
    const unreached = destinations.filter((d) => !d.connected).map((d) => d.device);
    const leaves = ({ edits }: Fix) =>
      edits.some((e) => e.edit === 'connect' && e.lead.from.device === device.id);
    if (unreached.some((d) => missingLeads(ctx, d).slice(0, 1).some(leaves))) return [];
    const ways = unheard.destinations.flatMap((d) => missingLeads(ctx, d, device.id));
    return [
      {
        rule: 'open-end',
        severity: 'caution',
        subjects: [device.id, ...lost],
        about: `${device.id}+${live.map((j) => j.id).join('+')}`,
        what: `${device.name} plays to ${names} alone, and nothing is plugged in there.`,
        why: `${allOf(lost.map((id) => ctx.device(id).name))} ${lost.length > 1 ? 'are' : 'is'} heard nowhere.`,
        ...fixes(ways.slice(0, MOST_WAYS)),
      },
    ];
  });
}

const endKey = ({ device, jack }: End): string => `${device} ${jack}`;

/** Instruments that rest in every sound and that no lead is in, with inputs beside those of the others. */
function restingLoose(ctx: SoundContext): Remark[] {
  const { rig } = ctx;
  const rests = (d: Device) =>
    rig.sounds.every((sound) => !isEngaged(kindOf(d.kind), d, stateIn(sound, d.id)));
  const isLoose = (d: Device) => !isPlugged(rig, d.id);
  const loose = rig.devices.filter(
    (d) => kindOf(d.kind).job === 'instrument' && d.host === undefined && isLoose(d) && rests(d),
  );
  if (!loose.length) return [];
  const openings = ctx.destinations.flatMap((d) => openingsBefore(ctx, d.device.id));
  const beside = (id: string) =>
    leadsInto(rig, id).some((l) => kindIn(rig, l.from.device)?.job === 'instrument');
  const worth = ({ end, likely }: (typeof openings)[number]) => likely + Number(beside(end.device));
  const inputs = openings
    .sort((a, b) => worth(b) - worth(a))
    .map(({ end }) => end)
    .filter((e, i, all) => all.findIndex((x) => endKey(x) === endKey(e)) === i)
    .slice(0, MOST_WAYS);
  return loose.flatMap((d): Remark[] => {
    const out = kindOf(d.kind).jacks.find((j) => j.direction === 'out' && j.signal === 'audio');
    if (!out) return [];
    return [
      {
        rule: 'unplugged',
        severity: 'advice',
        subjects: [d.id],
        what: `${d.name} is there, and not plugged in.`,
        why: 'It rests in every sound, and nobody could hear it if it were played.',
        ...fixes(inputs.map((to) => joinFix(ctx, { device: d.id, jack: out.id }, to))),
      },
    ];
  });
}

/**
 * Inputs that the output could be meant for: the return of the loop whose send feeds the device,
 * then inputs that hold nothing, those of destinations first.
 */
export function waysOn(rig: Rig, device: Device): End[] {
  const feeding = byKey(
    rig.leads.filter((l) => !CONTROL_LEADS.includes(l.type)),
    (l) => l.to.device,
  );
  const isSend = ({ device: id, jack }: End) =>
    kindIn(rig, id)?.loops?.find((l) => l.send.includes(jack));
  // Back along the chain, up to the send that feeds it.
  const chain = reachable([device.id], (id) =>
    (feeding.get(id) ?? []).flatMap(({ from }) => (isSend(from) ? [] : [from.device])),
  );
  const returns = [...chain]
    .flatMap((id) => feeding.get(id) ?? [])
    .flatMap(({ from }) =>
      (isSend(from)?.return ?? []).map((jack) => ({ device: from.device, jack })),
    );
  const free = freeJacks(rig, 'in', '', (j) => j.signal === 'audio')
    .filter((d) => d.device.id !== device.id)
    .flatMap(({ device: d, jacks }) => {
      const kind: Kind = kindOf(d.kind);
      const ofLoops = (kind.loops ?? []).flatMap((l) => l.return);
      return jacks
        .filter((j) => !ofLoops.includes(j.id))
        .map((j) => ({ device: d.id, jack: j.id, first: kind.destination ? 0 : 1 }));
    })
    .sort((a, b) => a.first - b.first)
    .map(({ device: d, jack }) => ({ device: d, jack }));
  const open = (end: End) =>
    free.some((x) => x.device === end.device && x.jack === end.jack) ||
    !leadsInto(rig, end.device).some((l) => l.to.jack === end.jack);
  const all = [...returns.filter(open), ...free];
  return all
    .filter((x, i) => all.findIndex((y) => y.device === x.device && y.jack === x.jack) === i)
    .slice(0, OFFERED);
}

/** The only tuner of a rig, with no lead in it. */
function loneTuner(rig: Rig): Remark[] {
  // By id: which of several is named hangs on no order of the file.
  const tuners = rig.devices.filter((d) => kindOf(d.kind).job === 'tuner').sort(byId);
  const isInUse = (d: Device) => d.host !== undefined || isPlugged(rig, d.id);
  const [tuner] = tuners;
  if (!tuner || tuners.some(isInUse) || rig.leads.length === 0) return [];
  const kind = kindOf(tuner.kind);
  const first = [...rig.leads]
    .sort(byId)
    .find((l) => kindIn(rig, l.from.device)?.job === 'instrument');
  return [
    {
      rule: 'unplugged',
      severity: 'advice',
      subjects: [tuner.id],
      what: `${tuner.name} is there, and not plugged in.`,
      why: 'No tuner of this rig hears anything.',
      ...(kind.through &&
        first && {
          fix: {
            words: `Put ${tuner.name} behind the instrument`,
            edits: [
              {
                edit: 'moveDevice' as const,
                device: tuner.id,
                lead: first.id,
                newLeads: [`${tuner.id}-in`, `${tuner.id}-out`],
              },
            ],
          },
        }),
    },
  ];
}

export const kindIn = (rig: Rig, id: string): Kind | undefined => {
  const device = deviceOf(rig, id);
  return device && kindOf(device.kind);
};
