import { passesOf, pluggedJacks } from '../circuit';
import type { Fix } from '../findings/finding';
import { byKey, reachable } from '../graph';
import { sure } from '../outcome';
import { kindOf } from '../kinds';
import { freeJacks, joiningLead } from '../rig';
import { copyWith } from '../rig/copies';
import type { Edit } from '../rig/edits';
import { isEngaged, stateIn } from '../rig/device-state';
import { byId, endWords, leadFrom, leadsFrom } from '../rig/find';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Device, End, Rig, Sound } from '../rig/schema';
import { sourceDevice } from '../rig/source-id';
import { arrivingFigures } from '../signal';
import { listenedTo, type SoundContext } from '../signal/sound-context';
import { routeTo } from '../walk';
import type { Evidence } from './evidence';
import { allOf } from '../units';

const loose = new WeakMap<SoundContext, readonly string[]>();

/** Instruments that a sound plays and that no lead is in. */
export function looseSources(ctx: SoundContext): readonly string[] {
  let found = loose.get(ctx);
  if (!found) loose.set(ctx, (found = foundLoose(ctx)));
  return found;
}

function foundLoose({ rig, sound }: SoundContext): string[] {
  const plugged = new Set(rig.leads.flatMap((l) => [l.from.device, l.to.device]));
  return rig.devices
    .filter(
      (d) =>
        d.host === undefined &&
        !plugged.has(d.id) &&
        kindOf(d.kind).job === 'instrument' &&
        isEngaged(kindOf(d.kind), d, stateIn(sound, d.id)),
    )
    .map((d) => d.id);
}

/** What of a sound hears nothing or is heard nowhere. */
export interface Unheard {
  /** Destinations that nothing leads to, or that are silent though something does. */
  destinations: string[];
  /** Instruments that are played. */
  sources: string[];
}

export function unheardIn({
  ctx,
  stations,
  destinations,
}: Pick<Evidence, 'ctx' | 'stations' | 'destinations'>): Unheard {
  const heard = new Set(destinations.flatMap((d) => d.sources.map(sourceDevice)));
  const played = [
    ...stations.filter((s) => s.source && s.state === 'engaged').map((s) => s.device),
    ...looseSources(ctx),
  ];
  const isSilent = destinations.every((d) => !d.levelDbu);
  return {
    destinations: destinations
      .filter((d) => isSilent || !d.connected || (d.selected && !d.levelDbu))
      .map((d) => d.device)
      .sort(),
    sources: [...new Set(played)].filter((id) => !heard.has(id)).sort(),
  };
}

/** Who hears anything, and who is heard, in sounds of copies; the same copy is asked about several. */
const audible = new WeakMap<Rig, Map<Sound, Audible>>();

interface Audible {
  hear: Set<string>;
  heard: Set<string>;
}

function audibleIn(ctx: SoundContext, copy: Rig): Audible {
  const { sound } = ctx;
  let known = audible.get(copy);
  if (!known) audible.set(copy, (known = new Map<Sound, Audible>()));
  let found = known.get(sound);
  if (!found) {
    const then = arrivingFigures(listenedTo(ctx, copy)).filter((d) => d.levelDbu);
    found = {
      hear: new Set(then.map((d) => d.device)),
      heard: new Set(then.flatMap((d) => d.sources.map(sourceDevice))),
    };
    known.set(sound, found);
  }
  return found;
}

/** Destinations that hear something again after some edits, made on a copy, and instruments that are heard again. */
export function broughtBack(
  ctx: SoundContext,
  edits: readonly Edit[],
  { destinations, sources }: Unheard,
): string[] {
  const copy = destinations.length + sources.length ? copyWith(ctx.rig, edits) : undefined;
  if (!copy) return [];
  const { hear, heard } = audibleIn(ctx, copy);
  return [...destinations.filter((id) => hear.has(id)), ...sources.filter((id) => heard.has(id))];
}

/** In words, which destinations of some devices hear something again once a cause is put right. */
export function againWords({ device }: SoundContext, back: readonly string[]): string {
  const ends = back.map((id) => device(id)).filter((d) => kindOf(d.kind).destination);
  if (!ends.length) return '';
  const names = allOf(ends.map((d) => d.name));
  return ` With that put right, there is sound again at ${names}.`;
}

/** A jack that holds no lead, and how likely a lead is missing there: the higher the likelier. */
interface Open {
  end: End;
  likely: number;
}

/** A free input, and whether anything feeds its device by another. */
interface Opening extends Open {
  isFed: boolean;
}

export const isSignal = (j: { signal: string }): boolean =>
  ['audio', 'speaker', 'digital'].includes(j.signal);

/** What leads on to a destination by leads, whatever its switches say: that itself, and all ahead of it. */
export function aheadOf({ rig }: SoundContext, destination: string): Set<string> {
  const into = byKey(
    rig.leads.filter((l) => !CONTROL_LEADS.includes(l.type)),
    (l) => l.to.device,
  );
  return reachable([destination], (id) => (into.get(id) ?? []).map((l) => l.from.device));
}

/** Free inputs of everything that leads on to a destination: its way could have been cut at each. */
export function openingsBefore(ctx: SoundContext, destination: string): readonly Opening[] {
  let known = openings.get(ctx);
  if (!known) openings.set(ctx, (known = new Map<string, readonly Opening[]>()));
  let found = known.get(destination);
  if (!found) known.set(destination, (found = foundOpenings(ctx, destination)));
  return found;
}

const openings = new WeakMap<SoundContext, Map<string, readonly Opening[]>>();

function foundOpenings(ctx: SoundContext, destination: string): Opening[] {
  const { rig } = ctx;
  const ahead = aheadOf(ctx, destination);
  const isReturn = ({ device, jack }: End) =>
    kindOf(ctx.device(device).kind).loops?.some((l) => l.return.includes(jack)) === true;
  const fed = new Set(
    rig.leads
      .filter((l) => !CONTROL_LEADS.includes(l.type) && !isReturn(l.to))
      .map((l) => l.to.device),
  );
  return freeJacks(rig, 'in', '', isSignal)
    .filter(({ device }) => ahead.has(device.id) && device.host === undefined)
    .flatMap(({ device, jacks }) => {
      const kind = kindOf(device.kind);
      const main = kind.through?.in ?? kind.jacks.find((j) => j.direction === 'in')?.id;
      const isFed = fed.has(device.id);
      // What joins several has its inputs for what is not there yet.
      const ins = kind.jacks.filter((j) => j.direction === 'in' && isSignal(j));
      const joins = kind.job === 'splitter' && ins.length > 1 ? 1 : 0;
      return jacks.map(({ id: jack, pair }) => {
        const loop = kind.loops?.find((l) => l.return.includes(jack));
        const isSent = loop?.send.some((s) =>
          leadsFrom(rig, device.id).some((l) => l.from.jack === s),
        );
        const likely = (jack === main ? 2 : isSent ? 2 : loop ? -2 : 0) + (isFed ? 0 : 2) + joins;
        // Each input of what joins or selects, and each side of a pair, is a way of its own.
        const isOwn = joins > 0 || pair !== undefined;
        return { end: { device: device.id, jack }, likely, isFed: isFed && !isOwn };
      });
    })
    .sort(likelier);
}

/** Whether a kind is there to feed several from one: with one of its outputs plugged it does nothing. */
export function isFork(kind: string): boolean {
  const { job, jacks } = kindOf(kind);
  const audio = jacks.filter((j) => j.signal === 'audio');
  const ins = audio.filter((j) => j.direction === 'in').length;
  return job === 'splitter' && ins === 1 && audio.length - ins > 1;
}

/** Free outputs at which signal stands and goes nowhere; those of boxes that nothing leaves come first. */
export function openEnds(ctx: SoundContext): readonly Open[] {
  let known = ends.get(ctx);
  if (!known) ends.set(ctx, (known = foundEnds(ctx)));
  return known;
}

const ends = new WeakMap<SoundContext, readonly Open[]>();

function foundEnds(ctx: SoundContext): Open[] {
  const { rig } = ctx;
  const leaves = byKey(
    rig.leads.filter((l) => !CONTROL_LEADS.includes(l.type)),
    (l) => l.from.device,
  );
  return freeJacks(rig, 'out', '', isSignal)
    .filter(({ device }) => device.host === undefined)
    .flatMap(({ device, jacks }) =>
      jacks
        .filter(
          (j) =>
            ctx.at(device.id, j.id).flows.length > 0 ||
            isPlayed(ctx, device.id) ||
            isFedInside(ctx, device, j.id) ||
            waitsForPlug(ctx, device, j.id),
        )
        .map(({ id: jack }) => {
          const kind = kindOf(device.kind);
          const main = kind.through?.out ?? kind.jacks.find((j) => j.direction === 'out')?.id;
          const { pair } = sure(kind.jacks.find((j) => j.id === jack));
          const isBeside = pair !== undefined && leadFrom(rig, device.id, pair.with) !== undefined;
          const enough = isFork(device.kind) ? 2 : 1;
          // Whatever an instrument plays at an output of its own is there to be heard.
          const isOwn = kind.job === 'instrument';
          const isMeant = isBeside || isOwn || isFedInside(ctx, device, jack);
          const isSpare = (leaves.get(device.id)?.length ?? 0) >= enough && !isMeant;
          const likely = (isSpare ? 0 : 3) + (jack === main ? 1 : 0);
          return { end: { device: device.id, jack }, likely };
        }),
    )
    .sort(likelier);
}

/** Whether something inside a host plays to one of its outputs. */
const isFedInside = (ctx: SoundContext, { id, kind }: Device, jack: string): boolean =>
  ctx.rig.leads.some(
    (l) =>
      l.type === 'inside' &&
      l.to.device === id &&
      kindOf(kind).jacks.some((j) => j.id === l.to.jack && j.faces?.jack === jack),
  );

/** Whether signal would stand at an output of a box that something is played into as soon as a plug is in it. */
function waitsForPlug(
  { rig, sound, stations, at }: SoundContext,
  device: Device,
  jack: string,
): boolean {
  const isFed = stations.some(
    (s) => s.device === device.id && s.ins.some((i) => at(device.id, i).flows.length > 0),
  );
  if (!isFed) return false;
  const now = pluggedJacks(rig);
  const then = new Map(now).set(device.id, new Set([...(now.get(device.id) ?? []), jack]));
  const comes = (plugged: typeof now) =>
    passesOf(device, sound, plugged).some((p) => p.is === 'stage' && p.to === jack && !p.muted);
  return comes(then) && !comes(now);
}

const isPlayed = (ctx: SoundContext, device: string): boolean =>
  ctx.stations.some((s) => s.device === device && s.source) || looseSources(ctx).includes(device);

const likelier = (a: Open, b: Open): number =>
  b.likely - a.likely ||
  byId({ id: a.end.device }, { id: b.end.device }) ||
  byId({ id: a.end.jack }, { id: b.end.jack });

/** A lead that joins two ends, as a fix. */
export function joinFix({ rig, device }: SoundContext, from: End, to: End): Fix {
  const { name, kind } = device(from.device);
  const { through, jacks } = kindOf(kind);
  const outs = jacks.filter((j) => j.direction === 'out' && j.signal === 'audio');
  const isPlain = through?.out === from.jack || outs.length === 1;
  return {
    words: `Plug ${isPlain ? name : endWords(rig, from)} into ${endWords(rig, to)}`,
    edits: [{ edit: 'connect', lead: joiningLead(rig, from, to) }],
  };
}

/** Sources that a destination is promised to hear in this sound. */
export const promisedAt = ({ rig, sound }: SoundContext, destination: string): string[] =>
  (rig.promises ?? []).flatMap((p) =>
    p.type === 'hears' && p.destination === destination && (p.sounds?.includes(sound.id) ?? true)
      ? [p.source]
      : [],
  );

/** How much likelier a lead is from where the promised source stands. */
const PROMISED = 2;
/** How much likelier a return is that takes what has been through an amplifier: more than the input. */
const POWERED = 5;

/** Whether a box with an amplifier of its own inside would play to the power stage of one, by its return. */
const isPowered = ({ device }: SoundContext, out: End, into: End): boolean =>
  kindOf(device(out.device).kind).hosts !== undefined &&
  kindOf(device(into.device).kind).loops?.some((l) => l.return.includes(into.jack)) === true;

/** So many are offered. */
const OFFERED = 5;

/** What leads on to a destination by ways that are made in this sound: that itself, and all of it. */
function madeTo(ctx: SoundContext, destination: string): ReadonlySet<string> {
  let known = waysMade.get(ctx);
  if (!known) waysMade.set(ctx, (known = new Map<string, ReadonlySet<string>>()));
  let found = known.get(destination);
  if (!found) {
    const way = routeTo(ctx.stations, ctx.steps, (s) => s.device === destination);
    known.set(destination, (found = new Set([destination, ...way.map((s) => s.device)])));
  }
  return found;
}

const waysMade = new WeakMap<SoundContext, Map<string, ReadonlySet<string>>>();

/** Whether a lead ends where ways lead on to all of some destinations, made in this sound or waiting to be fed. */
export const leadsToAll = (
  ctx: SoundContext,
  { edits }: Fix,
  destinations: readonly string[],
): boolean =>
  edits.some(
    (e) =>
      e.edit === 'connect' &&
      destinations.every((d) =>
        [madeTo(ctx, d), aheadOf(ctx, d)].some((way) => way.has(e.lead.to.device)),
      ),
  );

/**
 * Leads that could be missing on the way to a destination that hears nothing, the likeliest first: from
 * where signal stands to where a way that is made goes on. What comes of each is for a trial to say.
 */
export function missingLeads(ctx: SoundContext, destination: string, from?: string): Fix[] {
  const promised = new Set(promisedAt(ctx, destination).map(sourceDevice));
  const carries = ({ end }: Open): boolean =>
    ctx.at(end.device, end.jack).flows.some((f) => promised.has(sourceDevice(f.source)));
  const signalOf = (e: End) =>
    kindOf(ctx.device(e.device).kind).jacks.find((j) => j.id === e.jack)?.signal;
  const outs = openEnds(ctx).filter((o) => from === undefined || o.end.device === from);
  const onward = madeTo(ctx, destination);
  return (
    openingsBefore(ctx, destination)
      // What nothing feeds lies on no way that is made, and waits for a lead.
      .filter(({ end, isFed }) => onward.has(end.device) || !isFed)
      .flatMap((into) =>
        outs
          .filter(
            (out) => out.end.device !== into.end.device && signalOf(out.end) === signalOf(into.end),
          )
          .map((out) => ({
            out,
            into,
            likely:
              out.likely +
              into.likely +
              (carries(out) ? PROMISED : 0) +
              (isPowered(ctx, out.end, into.end) ? POWERED : 0),
          })),
      )
      .sort((a, b) => b.likely - a.likely)
      .slice(0, OFFERED)
      .map(({ out, into }) => joinFix(ctx, out.end, into.end))
  );
}
