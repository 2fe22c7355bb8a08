import { sure } from '../outcome';
import type { Job } from '../kinds';
import { kindOf } from '../kinds';
import type { StationFigures } from '../signal/station-figures';
import type { SoundContext } from '../signal/sound-context';
import type { Station } from '../walk';

/** For each engaged job, the station met first (upstream) or last (downstream) on any way through this one. */
export type ByJob = Partial<Record<Job, StationFigures>>;

/** What lies before and behind every station in one sound; only engaged stations count. */
export interface Neighbours {
  before: (s: StationFigures) => ByJob;
  /** The one met last of those before, of each job. */
  rightBefore: (s: StationFigures) => ByJob;
  behind: (s: StationFigures) => ByJob;
  destinationsBehind: (s: StationFigures) => number;
}

/**
 * Whether a box does its job in a station. One with a loop of its own has two: a gate listens in front of
 * the loop and acts on what comes back; what follows the note acts on what comes in.
 */
export function acts(ctx: SoundContext, s: Station): boolean {
  const { job, loops } = kindOf(ctx.device(s.device).kind);
  if (job === 'gate') {
    const sends = loops?.flatMap((l) => l.send) ?? [];
    return !s.outs.length || s.outs.some((o) => !sends.includes(o));
  }
  const returns = job === 'pitch' ? (loops?.flatMap((l) => l.return) ?? []) : [];
  return !s.ins.length || s.ins.some((i) => !returns.includes(i));
}

/** What lies before and behind stations, by their ids. */
interface Around {
  before: Map<string, Met>;
  rightBefore: Map<string, Met>;
  behind: Map<string, Met>;
  reached: Map<string, Set<string>>;
}
type Met = Partial<Record<Job, Station>>;

/** Around the stations of a walk, which lives on while only lengths of leads change, and by the stance it was found. */
const around = new WeakMap<readonly Station[], { goesFirst: boolean; found: Around }>();

/** Follows the steps once in each direction; the cost is that of the walk, times the number of jobs. */
export function neighbours(ctx: SoundContext, stations: readonly StationFigures[]): Neighbours {
  // What wants the bare pickup goes before everything: nothing is moved before it.
  const goesFirst = ctx.rig.order?.stances?.['bare-pickup']?.stance !== 'other';
  let known = around.get(ctx.stations);
  if (known?.goesFirst !== goesFirst)
    around.set(ctx.stations, (known = { goesFirst, found: findAround(ctx, goesFirst) }));
  const { before, rightBefore, behind, reached } = known.found;
  const figures = new Map(stations.map((s) => [s.id, s]));
  const withFigures = (met: Met | undefined): ByJob => {
    const found: ByJob = {};
    for (const job in met) found[job as Job] = sure(figures.get(sure(met[job as Job]).id));
    return found;
  };
  return {
    before: (s) => withFigures(before.get(s.id)),
    rightBefore: (s) => withFigures(rightBefore.get(s.id)),
    behind: (s) => withFigures(behind.get(s.id)),
    destinationsBehind: (s) => sure(reached.get(s.id)).size,
  };
}

function findAround(ctx: SoundContext, goesFirst: boolean): Around {
  const { stations } = ctx;
  const byId = new Map(stations.map((s) => [s.id, s]));
  const order = [...stations].sort((a, b) => a.column - b.column || a.lane - b.lane);
  const before = new Map<string, Met>();
  const rightBefore = new Map<string, Met>();
  const behind = new Map<string, Met>();
  const reached = new Map<string, Set<string>>();
  const steps = ctx.steps.filter((s) => !s.back && !s.open);
  const into = group(steps, 'to');
  const outOf = group(steps, 'from');
  type Keep = (a: Station, b: Station) => boolean;
  const put = (to: Met, job: Job, s: Station, keep: Keep) => {
    const met = to[job];
    if (!met || keep(s, met)) to[job] = s;
  };
  const join = (to: Met, from: Met, keep: Keep) => {
    for (const job in from) put(to, job as Job, sure(from[job as Job]), keep);
  };
  const jobs = new Map(
    stations.flatMap((s) =>
      s.state === 'engaged' && acts(ctx, s)
        ? [[s.id, kindOf(ctx.device(s.device).kind).job] as const]
        : [],
    ),
  );
  const joinOwn = (to: Met, s: Station, keep: Keep) => {
    const job = jobs.get(s.id);
    if (job) put(to, job, s, keep);
  };
  const isFirst = (s: Station) =>
    goesFirst && kindOf(ctx.device(s.device).kind).wantsBarePickup === true;
  for (const s of order) {
    const mine: Met = {};
    const last: Met = {};
    for (const step of into.get(s.id) ?? []) {
      const p = sure(byId.get(step.from));
      join(mine, sure(before.get(p.id)), (a, b) => a.column < b.column);
      if (!isFirst(p)) joinOwn(mine, p, (a, b) => a.column < b.column);
      join(last, sure(rightBefore.get(p.id)), (a, b) => a.column > b.column);
      joinOwn(last, p, (a, b) => a.column > b.column);
    }
    before.set(s.id, mine);
    rightBefore.set(s.id, last);
  }
  const ends = new Set(ctx.destinations.map((d) => d.device.id));
  for (const s of [...order].reverse()) {
    const mine: Met = {};
    const heard = new Set<string>(ends.has(s.device) ? [s.device] : []);
    for (const step of outOf.get(s.id) ?? []) {
      const n = sure(byId.get(step.to));
      join(mine, sure(behind.get(n.id)), (a, b) => a.column > b.column);
      joinOwn(mine, n, (a, b) => a.column > b.column);
      for (const d of sure(reached.get(n.id))) heard.add(d);
    }
    behind.set(s.id, mine);
    reached.set(s.id, heard);
  }
  return { before, rightBefore, behind, reached };
}

function group<T extends { from: string; to: string }>(
  steps: readonly T[],
  by: 'from' | 'to',
): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const s of steps) {
    const list = groups.get(s[by]);
    if (list) list.push(s);
    else groups.set(s[by], [s]);
  }
  return groups;
}
