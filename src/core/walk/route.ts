import type { Station, Step } from './stations';

/** The stations that a destination's signal passes, from its sources to itself, in the order it meets them. */
export function routeTo(stations: readonly Station[], steps: readonly Step[], isDestination: (s: Station) => boolean): Station[] {
  const into = new Map<string, string[]>();
  for (const step of steps) {
    if (step.open) continue;
    const list = into.get(step.to);
    if (list) list.push(step.from);
    else into.set(step.to, [step.from]);
  }
  const reached = new Set<string>();
  const open = stations.filter(isDestination).map((s) => s.id);
  while (open.length) {
    const id = open.pop()!;
    if (reached.has(id)) continue;
    reached.add(id);
    open.push(...(into.get(id) ?? []));
  }
  return stations.filter((s) => reached.has(s.id)).sort((a, b) => a.column - b.column || a.lane - b.lane);
}
