import { at as entryAt, sure } from '../outcome';
import { passesOf, pluggedJacks } from '../circuit';
import { isEngaged, stateIn } from '../rig/device-state';
import { isControlJack, type Jack, kindOf, type Pass } from '../kinds';
import { joinsOf } from '../rig/conductors';
import { CONTROL_LEADS } from '../rig/lead-types';
import type { Device, Rig, Sound } from '../rig/schema';
import { tripsOf } from './trips';

/**
 * One pass of the signal through a device: the jacks it comes in by and leaves by. A device with a
 * loop has two or more.
 */
export interface Station {
  id: string;
  device: string;
  ins: string[];
  outs: string[];
  /**
   * engaged: does its job · through: only passes the signal on · muted: lets nothing through ·
   * unused: not selected or not in use.
   */
  state: 'engaged' | 'through' | 'muted' | 'unused';
  /** Whether signal begins here. */
  source: boolean;
  column: number;
  lane: number;
}

/** Where the figures of a station are read: at its outputs, or where its way ends at what takes it in. */
export const figurePoints = (
  { ins, outs }: Pick<Station, 'ins' | 'outs'>,
  taken: readonly string[] = [],
): readonly string[] => (outs.length ? outs : taken.length ? taken : ins);

/**
 * Leads that carry signal from one station to the next: two where a stereo pair runs side by side,
 * none where a dry way inside a device runs past its loop.
 */
export interface Step {
  from: string;
  to: string;
  leads: string[];
  back: boolean;
  open: boolean;
}

/**
 * Points of a device joined by its passes, each group being one pass of the signal. `together` says
 * whether the two sides of a stereo pair run as one. Metal that works both ways round counts as an
 * input where `receives` says so.
 */
export function passGroups(
  passes: readonly Pass[],
  jacks: readonly Jack[],
  together: (jack: Jack) => boolean = () => true,
  receives: (jack: Jack) => boolean = () => false,
): { ins: string[]; outs: string[]; passes: Pass[] }[] {
  const group = new Map<string, string>();
  const root = (p: string): string => {
    const up = group.get(p);
    if (up === undefined) group.set(p, p);
    return up === undefined || up === p ? p : root(up);
  };
  const ends = (p: Pass): string[] =>
    p.is === 'stage'
      ? [p.from, p.to]
      : p.is === 'series'
        ? [p.at, ...p.legs]
        : p.is === 'wire' || p.is === 'resistor' || p.is === 'open'
          ? [p.a, p.b]
          : [p.at];
  const join = (a: string, b: string) => {
    const [ra, rb] = [root(a), root(b)];
    if (ra !== rb) group.set(ra, rb);
  };
  // The two sides of a stereo pair are one pass, and so are the conductors of a stereo or digital jack.
  for (const j of jacks) {
    if (j.pair && together(j)) join(j.id, j.pair.with);
    if (j.stereo) join(j.id, j.stereo);
  }
  for (const p of passes) {
    const [a, ...rest] = ends(p);
    root(a!);
    for (const b of rest) join(a!, b);
  }
  const found = new Map<string, { ins: string[]; outs: string[]; passes: Pass[] }>();
  const at = (p: string) => {
    const r = root(p);
    let g = found.get(r);
    if (!g) found.set(r, (g = { ins: [], outs: [], passes: [] }));
    return g;
  };
  for (const j of jacks) {
    if (j.insert) {
      at(j.id).outs.push(j.id);
      at(j.insert).ins.push(j.insert);
    } else
      for (const point of j.channels ?? [j.id])
        at(point)[
          j.direction === 'in' || (j.direction === 'either' && receives(j)) ? 'ins' : 'outs'
        ].push(point);
  }
  for (const p of passes) at(entryAt(ends(p), 0)).passes.push(p);
  return [...found.values()];
}

function stateOf(device: Device, engaged: boolean, passes: readonly Pass[]): Station['state'] {
  if (passes.some((p) => p.is === 'source')) return engaged ? 'engaged' : 'unused';
  const stages = passes.filter((p) => p.is === 'stage');
  if (stages.length && stages.every((s) => s.muted)) return 'muted';
  if (!engaged) return kindOf(device.kind).startsEngaged ? 'unused' : 'through';
  return passes.length ? 'engaged' : 'unused';
}

/**
 * Whether nothing is made to a jack in this state, though a way to it is there: a switch turned to
 * the other side, one output muted while another plays.
 */
function isOpen(passes: readonly Pass[], jack: string): boolean {
  const into = passes.filter((p) =>
    p.is === 'stage' ? p.to === jack : p.is === 'wire' && p.b === jack,
  );
  if (!into.length) return passes.some((p) => p.is === 'open' && p.b === jack);
  const isMuted = (p: Pass) => p.is === 'stage' && p.muted === true;
  return into.every(isMuted) && passes.some((p) => p.is === 'stage' && !p.muted);
}

/**
 * Whether an input leads nowhere in this state, though a way from it is there and another input of
 * the same trip plays: an amplifier that a switcher does not choose.
 */
function isShut(passes: readonly Pass[], jack: string, ins: readonly string[]): boolean {
  const leadsOn = (j: string) =>
    passes.some((p) =>
      p.is === 'stage'
        ? p.from === j
        : (p.is === 'wire' || p.is === 'resistor') && (p.a === j || p.b === j),
    );
  return (
    passes.some((p) => p.is === 'open' && p.a === jack) &&
    !leadsOn(jack) &&
    ins.some((j) => j !== jack && leadsOn(j))
  );
}

/** Where a jack stands on the walk. */
interface Standing {
  station: Station;
  open: boolean;
  shut: boolean;
}

/** Stations of a sound and the steps between them, unplaced. Only passes that a lead reaches are stations. */
export function stationsOf(rig: Rig, sound?: Sound): { stations: Station[]; steps: Step[] } {
  const plugged = pluggedJacks(rig);
  const ends = leadEnds(rig);
  const stations: Station[] = [];
  const inside: Step[] = [];
  const at = new Map<string, Standing>();
  for (const device of rig.devices) {
    if (!plugged.has(device.id)) continue;
    const made = deviceStations(device, sound, plugged, ends);
    stations.push(...made.stations);
    inside.push(...made.steps);
    for (const [jack, standing] of made.at) at.set(`${device.id}/${jack}`, standing);
  }
  return { stations, steps: [...stepsBetween(rig, at), ...inside] };
}

/** What stands at the other end of each jack, by `device/jack`, and which jacks receive. */
interface LeadEnds {
  others: Map<string, string>;
  received: Set<string>;
}

function leadEnds(rig: Rig): LeadEnds {
  const others = new Map<string, string>();
  const received = new Set<string>();
  for (const lead of rig.leads) {
    if (CONTROL_LEADS.includes(lead.type)) continue;
    const from = `${lead.from.device}/${lead.from.jack}`;
    const to = `${lead.to.device}/${lead.to.jack}`;
    if (!others.has(from)) others.set(from, lead.to.device);
    if (!others.has(to)) others.set(to, lead.from.device);
    received.add(to);
  }
  return { others, received };
}

/** The stations of one device, one for each trip through it, the steps between them, and its jacks. */
function deviceStations(
  device: Device,
  sound: Sound | undefined,
  plugged: ReturnType<typeof pluggedJacks>,
  { others, received }: LeadEnds,
): { stations: Station[]; steps: Step[]; at: Map<string, Standing> } {
  const kind = kindOf(device.kind);
  const jacks = sure(plugged.get(device.id));
  const engaged = isEngaged(kind, device, stateIn(sound, device.id));
  // Sides that may be used on their own run as one only where both lead to the same device.
  const together = (jack: Jack) => {
    if (!jack.pair?.loose) return true;
    const a = others.get(`${device.id}/${jack.id}`);
    const b = others.get(`${device.id}/${jack.pair.with}`);
    return a !== undefined && a === b && a !== device.id;
  };
  const groups = passGroups(
    passesOf(device, sound, plugged),
    kind.jacks.filter((j) => !isControlJack(j)),
    together,
    (j) => received.has(`${device.id}/${j.id}`),
  ).filter((g) => [...g.ins, ...g.outs].some((j) => jacks.has(j)));
  const used = (list: string[]) => list.filter((j) => jacks.has(j));
  const trips = groups.map((g) =>
    tripsOf({ ins: used(g.ins), outs: used(g.outs), passes: g.passes }, kind.loops ?? []),
  );
  const isSingle = trips.flat().length === 1;
  const stations: Station[] = [];
  const steps: Step[] = [];
  const at = new Map<string, Standing>();
  for (const [n, group] of groups.entries()) {
    const here = entryAt(trips, n);
    const made = here.map((trip): Station => ({
      id: isSingle ? device.id : `${device.id}:${trip.ins[0] ?? trip.outs[0]}`,
      device: device.id,
      ins: trip.ins,
      outs: trip.outs,
      state: stateOf(device, engaged, group.passes),
      source: group.passes.some((p) => p.is === 'source'),
      column: 0,
      lane: 0,
    }));
    stations.push(...made);
    for (const [i, station] of made.entries()) {
      for (const j of [...station.ins, ...station.outs])
        at.set(j, {
          station,
          open: isOpen(group.passes, j),
          shut: isShut(group.passes, j, station.ins),
        });
      const step = (open: boolean) => (to: number) => ({
        from: station.id,
        to: entryAt(made, to).id,
        leads: [],
        back: false,
        open,
      });
      steps.push(...entryAt(here, i).wouldFeed.map(step(true)));
      steps.push(...entryAt(here, i).feeds.map(step(false)));
    }
  }
  return { stations, steps, at };
}

/** Steps from station to station, over one lead or several. */
function stepsBetween(rig: Rig, at: ReadonlyMap<string, Standing>): Step[] {
  const devices = new Map(rig.devices.map((d) => [d.id, d]));
  const steps = new Map<string, Step>();
  for (const lead of rig.leads) {
    const joins = joinsOf(lead, devices.get(lead.from.device), devices.get(lead.to.device));
    for (const [a, b] of joins) {
      const from = at.get(`${lead.from.device}/${a}`);
      const to = at.get(`${lead.to.device}/${b}`);
      if (!from || !to || from.station === to.station) continue;
      const key = `${from.station.id}>${to.station.id}`;
      const step = steps.get(key);
      if (!step)
        steps.set(key, {
          from: from.station.id,
          to: to.station.id,
          leads: [lead.id],
          back: false,
          open: from.open || to.shut,
        });
      else if (!step.leads.includes(lead.id)) step.leads.push(lead.id);
    }
  }
  return [...steps.values()];
}
