import type { Station, Step } from './stations';

/**
 * The stations that a destination's signal passes, from its sources to itself, in the order it meets them. `open` follows ways
 * that are there but not made in this sound, too.
 */
export function routeTo(stations: readonly Station[], steps: readonly Step[], isDestination: (s: Station) => boolean, open = false): Station[] {
  const into = new Map<string, string[]>();
  for (const step of steps) {
    if (step.open && !open) continue;
    const list = into.get(step.to);
    if (list) list.push(step.from);
    else into.set(step.to, [step.from]);
  }
  const reached = new Set<string>();
  const next = stations.filter(isDestination).map((s) => s.id);
  while (next.length) {
    const id = next.pop()!;
    if (reached.has(id)) continue;
    reached.add(id);
    next.push(...(into.get(id) ?? []));
  }
  return stations.filter((s) => reached.has(s.id)).sort((a, b) => a.column - b.column || a.lane - b.lane);
}

/** The stations between a source and a destination, both included, in the order they are met. */
export function routeBetween(stations: readonly Station[], steps: readonly Step[], isSource: (s: Station) => boolean, isDestination: (s: Station) => boolean, open = false): Station[] {
  const outOf = new Map<string, string[]>();
  for (const step of steps) {
    if (step.open && !open) continue;
    const list = outOf.get(step.from);
    if (list) list.push(step.to);
    else outOf.set(step.from, [step.to]);
  }
  const reached = new Set<string>();
  const next = stations.filter(isSource).map((s) => s.id);
  while (next.length) {
    const id = next.pop()!;
    if (reached.has(id)) continue;
    reached.add(id);
    next.push(...(outOf.get(id) ?? []));
  }
  return routeTo(stations, steps, isDestination, open).filter((s) => reached.has(s.id));
}
