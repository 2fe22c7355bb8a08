import { at as entryAt, sure } from '../outcome';
import type { SoundFigures } from '../analysis';
import type { StationFigures } from '../signal';
import { kindOf } from '../kinds';
import { blocksOf, deviceOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { placeStations, reachedFrom, routeTo, type Step } from '../walk';

/**
 * What of a walk is looked at: hosts drawn as one strip a pass, only the ways of one source or
 * destination, quiet ways too.
 */
export interface WalkChoice {
  folded?: ReadonlySet<string>;
  follow?: string | null;
  quiet?: boolean;
}

/** A strip of a walk: a station, or a folded host with what is inside it. */
export interface WalkStation extends StationFigures {
  folded?: string[];
}

/** A walk as it is looked at, placed. `quiet` are devices that no played instrument reaches in this sound. */
export interface WalkView {
  stations: WalkStation[];
  steps: Step[];
  columns: number;
  lanes: number;
  quiet: string[];
}

/** Stations that a played source reaches over ways that are made. Where nothing is played, all of them. */
function reached(stations: readonly StationFigures[], steps: readonly Step[]): Set<string> {
  const isPlayed = (s: StationFigures) => s.source && s.state === 'engaged';
  return stations.some(isPlayed)
    ? reachedFrom(stations, steps, (s) => isPlayed(s as StationFigures))
    : new Set(stations.map((s) => s.id));
}

/** Stations on the ways to a destination, or from a source or any other device onwards. */
function following(
  stations: readonly StationFigures[],
  steps: readonly Step[],
  device: string,
): Set<string> {
  const isEnd =
    stations.some((s) => s.device === device) &&
    !steps.some((s) => stations.find((x) => x.id === s.from)?.device === device && !s.open);
  if (isEnd) return new Set(routeTo(stations, steps, (s) => s.device === device).map((s) => s.id));
  return reachedFrom(stations, steps, (s) => s.device === device);
}

/**
 * Which trip through its folded host each station belongs to: signal that has left the host and
 * comes back is on the next trip. Following the steps in order, a station inside keeps the trip of
 * what feeds it inside; one fed from outside starts a new one.
 */
function tripsThrough(
  stations: readonly StationFigures[],
  steps: readonly Step[],
  hostOf: (device: string) => string | undefined,
): Map<string, number> {
  const into = new Map<string, string[]>();
  for (const s of steps) if (!s.back) into.set(s.to, [...(into.get(s.to) ?? []), s.from]);
  const device = new Map(stations.map((s) => [s.id, s.device]));
  const trip = new Map<string, number>();
  const highest = new Map<string, Map<string, number>>();
  for (const s of [...stations].sort((a, b) => a.column - b.column)) {
    const mine = new Map<string, number>();
    highest.set(s.id, mine);
    const host = hostOf(s.device);
    let at = 0;
    for (const from of into.get(s.id) ?? []) {
      for (const [h, t] of highest.get(from) ?? []) mine.set(h, Math.max(mine.get(h) ?? 0, t));
      if (host === undefined) continue;
      const inside = hostOf(device.get(from) ?? '') === host;
      const before = highest.get(from)?.get(host);
      at = Math.max(at, inside ? (trip.get(from) ?? 0) : before === undefined ? 0 : before + 1);
    }
    if (host !== undefined) {
      trip.set(s.id, at);
      mine.set(host, Math.max(mine.get(host) ?? 0, at));
    }
  }
  return trip;
}

const louder = (a: StationFigures, b: StationFigures, of: 'input' | 'output'): StationFigures =>
  (b[of]?.levelDbu?.normal ?? -999) > (a[of]?.levelDbu?.normal ?? -999) ? b : a;

/**
 * Joins the stations of each trip through a folded host into one strip: what comes in, what goes
 * out, the least headroom between.
 */
function foldHosts(
  rig: Pick<Rig, 'devices'>,
  stations: readonly StationFigures[],
  steps: readonly Step[],
  folded: ReadonlySet<string>,
): { stations: WalkStation[]; steps: Step[] } {
  const hostOf = (id: string): string | undefined => {
    let found: string | undefined;
    for (let d = deviceOf(rig, id); d; d = d.host === undefined ? undefined : deviceOf(rig, d.host))
      if (folded.has(d.id)) found = d.id;
    return found;
  };
  const trip = tripsThrough(stations, steps, hostOf);
  const nameOf = (s: StationFigures): string => {
    const host = hostOf(s.device);
    return host === undefined ? s.id : `${host}~${trip.get(s.id)}`;
  };
  const groups = new Map<string, StationFigures[]>();
  for (const s of stations) groups.set(nameOf(s), [...(groups.get(nameOf(s)) ?? []), s]);
  const renamed = new Map(stations.map((s) => [s.id, nameOf(s)]));
  const outside = steps.filter((s) => renamed.get(s.from) !== renamed.get(s.to));
  const joined: WalkStation[] = [...groups].map(([id, members]) => {
    if (members.length === 1 && entryAt(members, 0).id === id) return entryAt(members, 0);
    const host = sure(hostOf(entryAt(members, 0).device));
    const entries = members.filter((m) => outside.some((s) => s.to === m.id));
    const exits = members.filter((m) => outside.some((s) => s.from === m.id));
    const entry = (entries.length ? entries : members).reduce((a, b) => louder(a, b, 'input'));
    const main = kindOf(sure(deviceOf(rig, host)).kind).through?.out;
    const exit =
      exits.find((m) => m.outs.includes(main ?? '')) ??
      (exits.length ? exits : members).reduce((a, b) => louder(a, b, 'output'));
    const rooms = members.flatMap((m) => (m.headroomDb === null ? [] : [m.headroomDb]));
    return {
      ...exit,
      id,
      device: host,
      ins: [...new Set(entries.flatMap((m) => m.ins))],
      outs: [...new Set(exits.flatMap((m) => m.outs))],
      input: entry.input,
      source: members.some((m) => m.source),
      state: members.some((m) => m.state === 'engaged') ? 'engaged' : exit.state,
      headroomDb: rooms.length ? Math.min(...rooms) : null,
      clipDbu: null,
      gainDb: null,
      folded: [...new Set(members.map((m) => m.device))].filter((d) => d !== host),
    };
  });
  const merged = new Map<string, Step>();
  for (const s of outside) {
    const [from, to] = [sure(renamed.get(s.from)), sure(renamed.get(s.to))];
    const known = merged.get(`${from}>${to}`);
    if (known)
      merged.set(`${from}>${to}`, {
        ...known,
        leads: [...new Set([...known.leads, ...s.leads])],
        open: known.open && s.open,
      });
    else merged.set(`${from}>${to}`, { ...s, from, to });
  }
  return { stations: joined, steps: [...merged.values()] };
}

/**
 * Everything about a walk that depends on how it is looked at, placed anew; the report itself is
 * not changed.
 */
export function walkView(
  rig: Pick<Rig, 'devices'>,
  report: SoundFigures,
  choice: WalkChoice = {},
): WalkView {
  const live = reached(report.stations, report.steps);
  const followed = choice.follow
    ? following(report.stations, report.steps, choice.follow)
    : undefined;
  const isShown = (s: StationFigures) =>
    (choice.quiet || live.has(s.id)) && (!followed || followed.has(s.id));
  const shown = report.stations.filter(isShown);
  const ids = new Set(shown.map((s) => s.id));
  const folded = foldHosts(
    rig,
    shown,
    report.steps.filter((s) => ids.has(s.from) && ids.has(s.to)),
    choice.folded ?? new Set(),
  );
  const stations = folded.stations.map((s) => ({ ...s }));
  const steps = folded.steps.map((s) => ({ ...s }));
  const { columns, lanes } = placeStations(stations, steps);
  stations.sort((a, b) => a.lane - b.lane || a.column - b.column);
  const there = new Set(report.stations.filter((s) => live.has(s.id)).map((s) => s.device));
  return {
    stations,
    steps,
    columns,
    lanes,
    quiet: [...new Set(report.stations.map((s) => s.device))].filter((d) => !there.has(d)),
  };
}

/** Hosts that hold enough to be worth folding. */
export const foldableHosts = (rig: Pick<Rig, 'devices'>, report: SoundFigures): string[] =>
  [...new Set(report.stations.map((s) => s.device))].filter((id) => blocksOf(rig, id).length > 0);
