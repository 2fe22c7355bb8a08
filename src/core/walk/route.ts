import type { Station, Step } from './stations';

/**
 * The stations that a destination's signal passes, from its sources to itself, in the order it
 * meets them. `open` follows ways
 * that are there but not made in this sound, too.
 */
export function routeTo(
  stations: readonly Station[],
  steps: readonly Step[],
  isDestination: (s: Station) => boolean,
  open = false,
): Station[] {
  const into = waysInto(steps, open);
  const reached = new Set<string>();
  const next = stations.filter(isDestination).map((s) => s.id);
  while (next.length) {
    const id = next.pop()!;
    if (reached.has(id)) continue;
    reached.add(id);
    next.push(...(into.get(id) ?? []));
  }
  return stations
    .filter((s) => reached.has(s.id))
    .sort((a, b) => a.column - b.column || a.lane - b.lane);
}

const known = new WeakMap<
  readonly Step[],
  [made: Map<string, string[]>, all: Map<string, string[]>]
>();

/** From where each station is fed, over ways that are made or over all; gathered once for a list of steps. */
function waysInto(steps: readonly Step[], open: boolean): Map<string, string[]> {
  let both = known.get(steps);
  if (!both) {
    const [made, all] = [new Map<string, string[]>(), new Map<string, string[]>()];
    const add = (to: Map<string, string[]>, step: Step) => {
      const list = to.get(step.to);
      if (list) list.push(step.from);
      else to.set(step.to, [step.from]);
    };
    for (const step of steps) {
      add(all, step);
      if (!step.open) add(made, step);
    }
    known.set(steps, (both = [made, all]));
  }
  return both[open ? 1 : 0];
}

/** Stations that some others lead to, those included; `open` follows ways that are not made, too. */
export function reachedFrom(
  stations: readonly Station[],
  steps: readonly Step[],
  isStart: (s: Station) => boolean,
  open = false,
): Set<string> {
  const outOf = new Map<string, string[]>();
  for (const step of steps) {
    if (step.open && !open) continue;
    const list = outOf.get(step.from);
    if (list) list.push(step.to);
    else outOf.set(step.from, [step.to]);
  }
  const reached = new Set<string>();
  const next = stations.filter(isStart).map((s) => s.id);
  while (next.length) {
    const id = next.pop()!;
    if (reached.has(id)) continue;
    reached.add(id);
    next.push(...(outOf.get(id) ?? []));
  }
  return reached;
}

/** The stations between a source and a destination, both included, in the order they are met. */
export function routeBetween(
  stations: readonly Station[],
  steps: readonly Step[],
  isSource: (s: Station) => boolean,
  isDestination: (s: Station) => boolean,
  open = false,
): Station[] {
  const reached = reachedFrom(stations, steps, isSource, open);
  return routeTo(stations, steps, isDestination, open).filter((s) => reached.has(s.id));
}
