import { sure, at as entryAt } from '../outcome';
import { kindOf, type Job } from '../kinds';
import { deviceOf, insideOf, leadOf } from '../rig/find';
import type { Lead, Rig, Sound } from '../rig/schema';
import { placeStations, routeTo, type Station, stationsOf, type Step } from '../walk';

/** What keeps its place whatever is proposed: ends, switches, amplifiers, and whatever holds others. */
const FIXED: ReadonlySet<Job> = new Set([
  'instrument',
  'wireless',
  'splitter',
  'switcher',
  'modeler',
  'amp',
  'simulator',
  'cabinet',
  'microphone',
  'direct',
  'destination',
  'supply',
]);

/**
 * Devices that can change places between two fixed stations; `after` is the jack they follow,
 * `inside` the host they are in.
 */
export interface Segment {
  after: Lead['from'];
  inside: string | undefined;
  devices: string[];
}

/** The longest way of a sound from a source to a destination, cut at what keeps its place. */
export interface Chain {
  source: string;
  destination: string;
  segments: Segment[];
  fixed: string[];
}

/** The longest run of stations from a source to a destination, over ways that are made in this sound. */
function longestWay(
  stations: readonly Station[],
  steps: readonly Step[],
): { way: Station[]; leads: string[] } {
  const order = [...stations].sort((a, b) => a.column - b.column);
  const best = new Map<string, { length: number; step?: Step }>();
  const isReached = new Set(
    routeTo(stations, steps, (s) => s.outs.length === 0 || s.ins.length > 0).map((s) => s.id),
  );
  for (const s of order) {
    let here: { length: number; step?: Step } | undefined = s.source ? { length: 1 } : undefined;
    for (const step of steps) {
      const before = step.to === s.id && !step.back && !step.open ? best.get(step.from) : undefined;
      if (before && (!here || before.length + 1 > here.length))
        here = { length: before.length + 1, step };
    }
    if (here && isReached.has(s.id)) best.set(s.id, here);
  }
  const byId = new Map(stations.map((s) => [s.id, s]));
  return {
    ...[...best].reduce<{ way: Station[]; leads: string[]; length: number }>(
      (found, [id, b]) => {
        if (b.length <= found.length) return found;
        const way = [sure(byId.get(id))];
        const leads: string[] = [];
        for (let at = b; at.step; at = sure(best.get(at.step.from))) {
          way.unshift(sure(byId.get(at.step.from)));
          leads.unshift(entryAt(at.step.leads, 0));
        }
        return { way, leads, length: b.length };
      },
      { way: [], leads: [], length: 0 },
    ),
  };
}

/** The chain of a sound, with its segments; nothing where no source reaches anything. */
export function chainIn(rig: Rig, sound: Sound): Chain | undefined {
  const { stations, steps } = stationsOf(rig, sound);
  placeStations(stations, steps);
  const { way, leads } = longestWay(stations, steps);
  if (way.length < 2) return undefined;
  const times = new Map<string, number>();
  for (const s of way) times.set(s.device, (times.get(s.device) ?? 0) + 1);
  const isMovable = (s: Station) => {
    const device = sure(deviceOf(rig, s.device));
    const kind = kindOf(device.kind);
    return (
      kind.through !== undefined &&
      !device.pinned &&
      !kind.hosts &&
      !kind.destination &&
      times.get(s.device) === 1 &&
      !FIXED.has(kind.job)
    );
  };
  const segments: Segment[] = [];
  const fixed: string[] = [];
  way.forEach((s, i) => {
    const lead = i < leads.length ? leadOf(rig, entryAt(leads, i)) : undefined;
    if (i > 0 && isMovable(s)) {
      sure(segments.at(-1)).devices.push(s.device);
      return;
    }
    fixed.push(s.device);
    if (lead) segments.push({ after: lead.from, inside: insideOf(rig, lead.from), devices: [] });
  });
  return { source: entryAt(way, 0).device, destination: sure(way.at(-1)).device, segments, fixed };
}
