import { sure, at as entryAt } from '../outcome';
import { reachable } from '../graph';
import type { Loop, Pass } from '../kinds';

/**
 * A part of a device that signal passes on one trip; the later trips that it also feeds inside,
 * past the loop (a dry way beside it); and those that it would feed if a switch were made (an input
 * that another one takes priority over).
 */
export interface Trip {
  ins: string[];
  outs: string[];
  feeds: number[];
  wouldFeed: number[];
}

/** Loops that hang one behind the other inside one device are followed this far. */
const DEEP = 24;

/**
 * Cuts a group of jacks that passes join into trips: what comes back from a loop is a later trip
 * than what was sent out, even where a dry way runs past the loop inside. A return that only a
 * switch not made leads on from belongs to no trip. One trip where no loop is in use.
 */
export function tripsOf(
  group: { ins: string[]; outs: string[]; passes: readonly Pass[] },
  loops: readonly Loop[],
): Trip[] {
  const returnsTo = new Map(loops.flatMap((l) => l.return.map((r): [string, Loop] => [r, l])));
  const back = group.ins.filter((j) => returnsTo.has(j));
  if (!back.length) return [{ ins: group.ins, outs: group.outs, feeds: [], wouldFeed: [] }];
  const next = new Map<string, string[]>();
  const open = new Map<string, string[]>();
  const add = (to: Map<string, string[]>, a: string, b: string) =>
    void to.set(a, [...(to.get(a) ?? []), b]);
  for (const p of group.passes) {
    if (p.is === 'stage') add(p.muted ? open : next, p.from, p.to);
    else if (p.is === 'wire' || p.is === 'resistor') add(next, p.a, p.b);
    else if (p.is === 'open') add(open, p.a, p.b);
  }
  const firm = new Map(group.ins.map((j) => [j, walk(j, [next])]));
  const loose = new Map(group.ins.map((j) => [j, walk(j, [next, open])]));
  const isLed = (r: string) => !returnsTo.has(r) || sure(firm.get(r)).size > 1;
  const depth = new Map(group.ins.map((j) => [j, 0]));
  const depthOfOut = (o: string): number => {
    const by = group.ins.filter((j) => sure(firm.get(j)).has(o));
    return Math.max(
      0,
      ...(by.length
        ? by
        : group.ins.filter(
            (j) => isLed(j) && sure(loose.get(j)).has(o) && !returnsTo.get(j)?.send.includes(o),
          )
      ).map((j) => sure(depth.get(j))),
    );
  };
  for (let round = 0; round < DEEP; round++) {
    let changed = false;
    for (const r of back) {
      const wanted =
        1 +
        Math.max(
          0,
          ...sure(returnsTo.get(r))
            .send.filter((s) => group.outs.includes(s))
            .map(depthOfOut),
        );
      if (wanted > sure(depth.get(r)) && wanted <= DEEP) {
        depth.set(r, wanted);
        changed = true;
      }
    }
    if (!changed) break;
  }
  const trips: Trip[] = [];
  const depths = [...new Set([...depth.values(), ...group.outs.map(depthOfOut)])].sort(
    (a, b) => a - b,
  );
  for (const d of depths)
    trips.push({
      ins: group.ins.filter((j) => depth.get(j) === d && isLed(j)),
      outs: group.outs.filter((o) => depthOfOut(o) === d),
      feeds: [],
      wouldFeed: [],
    });
  trips.forEach((trip, i) => {
    const leadsTo = (ways: ReadonlyMap<string, Set<string>>) =>
      depths.flatMap((_, k) =>
        k > i && trip.ins.some((j) => entryAt(trips, k).outs.some((o) => sure(ways.get(j)).has(o)))
          ? [k]
          : [],
      );
    trip.feeds = leadsTo(firm);
    if (trip.ins.every((j) => sure(firm.get(j)).size === 1)) trip.wouldFeed = leadsTo(loose);
  });
  const used = trips.map((t) => t.ins.length + t.outs.length > 0);
  const shift = used.map((_, i) => used.slice(0, i).filter(Boolean).length);
  return trips
    .filter((_, i) => used[i])
    .map((t) => ({
      ...t,
      feeds: t.feeds.map((k) => entryAt(shift, k)),
      wouldFeed: t.wouldFeed.map((k) => entryAt(shift, k)),
    }));
}

const walk = (from: string, ways: readonly Map<string, string[]>[]): Set<string> =>
  reachable([from], (at) => ways.flatMap((way) => way.get(at) ?? []));
