import { endsOf, reachOf } from '../control';
import { nameOf } from '../rig/find';
import { routeBetween } from '../walk';
import type { InSound } from './check';
import { routeWords } from './hearing';

/** A control changes what the named destinations hear, and nothing else, found by turning it from end to end. */
export const movesOnly: InSound<'moves-only'> = (p, { rig }, sound, report) => {
  if (!endsOf(rig, p.device, p.setting).length) return [{ sound: sound.id, why: `${nameOf(rig, p.device)} has no control "${p.setting}" that runs from one end to another.`, subjects: [p.device] }];
  const reached = reachOf(rig, sound, p.device, p.setting);
  const extra = reached.filter((r) => !p.destinations.includes(r.destination));
  const missed = p.destinations.filter((d) => !reached.some((r) => r.destination === d) && report.destinations.some((x) => x.device === d && x.levelDbu));
  return [
    ...extra.map((r) => {
      const route = [...new Set(routeBetween(report.stations, report.steps, (s) => s.device === p.device, (s) => s.device === r.destination).map((s) => s.device))];
      return { sound: sound.id, why: `It moves ${nameOf(rig, r.destination)} too (${r.what.join(', ')}), by way of ${routeWords(rig, route)}.`, subjects: [p.device, r.destination], route };
    }),
    ...missed.map((d) => ({ sound: sound.id, why: `It does not move ${nameOf(rig, d)}.`, subjects: [p.device, d] })),
  ];
};
