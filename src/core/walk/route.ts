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
