import { circlesIn } from '../graph';
import { echoAt, endKey, type MidiGraph, outJacks, type Way } from './graph';

/** Devices of a circle in which messages would go round, in the order they pass. */
export function circleOf(graph: MidiGraph): string[] | undefined {
  const keyOf = (w: Way) => `${endKey(w.from)}>${endKey(w.to)}`;
  const ways = new Map(graph.ways.filter((w) => !w.broken).map((w) => [keyOf(w), w]));
  const onward = (key: string): string[] => {
    const way = ways.get(key);
    const m = way && graph.devices.get(way.to.device);
    if (!m) return [];
    return outJacks(m)
      .filter((out) => echoAt(m, way.to.jack, out) !== 'none')
      .flatMap((out) => graph.from.get(`${m.device.id}/${out.id}`) ?? [])
      .filter((next) => !next.broken)
      .map(keyOf);
  };
  const [part] = circlesIn(ways.keys(), onward);
  if (!part) return undefined;
  // Walk round inside the part until something comes again.
  const inside = new Set(part);
  const round: string[] = [];
  for (let at = part[0]; at !== undefined; at = onward(at).find((n) => inside.has(n))) {
    const again = round.indexOf(at);
    if (again >= 0)
      return [...new Set(round.slice(again).flatMap((n) => ways.get(n)?.to.device ?? []))];
    round.push(at);
  }
  return undefined;
}
