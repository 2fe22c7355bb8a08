import { byKey, reachable } from '../graph';
import type { Station, Step } from './stations';

/**
 * The stations that a destination's signal passes, from its sources to itself, in the order it
 * meets them. `open` follows ways that are there but not made in this sound, too.
 */
export function routeTo(
  stations: readonly Station[],
  steps: readonly Step[],
  isDestination: (s: Station) => boolean,
  open = false,
): Station[] {
  const into = waysInto(steps, open);
  const reached = reachable(
    stations.filter(isDestination).map((s) => s.id),
    (id) => into.get(id) ?? [],
  );
  return stations
    .filter((s) => reached.has(s.id))
    .sort((a, b) => a.column - b.column || a.lane - b.lane);
}

/** From where stations are fed, over ways that are made or over all. */
type Feeds = Map<string, string[]>;
const known = new WeakMap<readonly Step[], { made: Feeds; all: Feeds }>();

const feedsBy = (steps: readonly Step[]): Feeds =>
  new Map([...byKey(steps, (step) => step.to)].map(([to, list]) => [to, list.map((s) => s.from)]));

/** From where each station is fed; gathered once for a list of steps. */
function waysInto(steps: readonly Step[], open: boolean): Feeds {
  let both = known.get(steps);
  if (!both) {
    both = { all: feedsBy(steps), made: feedsBy(steps.filter((s) => !s.open)) };
    known.set(steps, both);
  }
  return open ? both.all : both.made;
}

/** Stations that some others lead to, those included; `open` follows ways that are not made, too. */
export function reachedFrom(
  stations: readonly Station[],
  steps: readonly Step[],
  isStart: (s: Station) => boolean,
  open = false,
): Set<string> {
  const outOf = byKey(
    steps.filter((step) => open || !step.open),
    (step) => step.from,
  );
  return reachable(
    stations.filter(isStart).map((s) => s.id),
    (id) => (outOf.get(id) ?? []).map((step) => step.to),
  );
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
