import { at as entryAt, sure } from '../outcome';
import { orderByName } from '../graph';
import type { Station, Step } from './stations';

/**
 * Places stations for drawing: the column is the longest way from a source, the lane is the first
 * free row that a branch finds. A branch keeps its lane until it ends or meets another; steps that
 * lead back are marked.
 */
export function placeStations(
  stations: Station[],
  steps: Step[],
): { columns: number; lanes: number } {
  const index = new Map(stations.map((s, i) => [s.id, i]));
  const successors: number[][] = stations.map(() => []);
  const predecessors: number[][] = stations.map(() => []);
  // Ways that are made before those that are not; outputs in the order of the jacks, so that the
  // main one goes straight on.
  for (const step of [...steps].sort((a, b) => Number(a.open) - Number(b.open)))
    entryAt(successors, sure(index.get(step.from))).push(sure(index.get(step.to)));
  const { order, isBack } = orderByName(
    successors,
    (i) => entryAt(stations, i).source,
    (i) => entryAt(stations, i).id,
  );
  for (const step of steps) {
    const [a, b] = [sure(index.get(step.from)), sure(index.get(step.to))];
    step.back = isBack(a, b);
    if (!step.back) entryAt(predecessors, b).push(a);
  }
  for (const i of order)
    entryAt(stations, i).column = Math.max(
      0,
      ...entryAt(predecessors, i).map((p) => entryAt(stations, p).column + 1),
    );
  // A source stands right before what it feeds, not at the far left.
  for (const i of order) {
    if (entryAt(predecessors, i).length || !entryAt(successors, i).length) continue;
    entryAt(stations, i).column = Math.max(
      0,
      Math.min(...entryAt(successors, i).map((s) => entryAt(stations, s).column)) - 1,
    );
  }

  const laneEnds: number[] = [];
  const placed = new Set<number>();
  const freeLane = (from: number): number => {
    const lane = laneEnds.findIndex((end) => end < from);
    return lane >= 0 ? lane : laneEnds.length;
  };
  const lastColumn = (i: number, seen = new Set<number>()): number => {
    let end = entryAt(stations, i).column;
    for (let at: number | undefined = i; at !== undefined && !seen.has(at);) {
      seen.add(at);
      end = Math.max(end, entryAt(stations, at).column);
      at = entryAt(successors, at).find((s) => !isBack(at!, s) && !placed.has(s));
    }
    return end;
  };
  // The longest way comes first, so that the main instrument has the top lane.
  const length = stations.map(() => 1);
  for (const i of [...order].reverse())
    length[i] =
      1 +
      Math.max(
        0,
        ...entryAt(successors, i)
          .filter((s) => !isBack(i, s))
          .map((s) => entryAt(length, s)),
      );
  const fed = (i: number) => Number(!entryAt(stations, i).source);
  const roots = [...order].sort(
    (a, b) =>
      entryAt(stations, a).column - entryAt(stations, b).column ||
      fed(a) - fed(b) ||
      entryAt(length, b) - entryAt(length, a),
  );
  for (const root of roots) {
    if (placed.has(root)) continue;
    const before = entryAt(predecessors, root)
      .filter((p) => placed.has(p))
      .map((p) => entryAt(stations, p).column);
    const start = before.length ? Math.min(...before) + 1 : entryAt(stations, root).column;
    const lane = freeLane(start - 1);
    laneEnds[lane] = lastColumn(root);
    for (let at: number | undefined = root; at !== undefined;) {
      placed.add(at);
      entryAt(stations, at).lane = lane;
      const here: number = at;
      at = entryAt(successors, here).find((s) => !isBack(here, s) && !placed.has(s));
    }
  }
  return { columns: Math.max(0, ...stations.map((s) => s.column + 1)), lanes: laneEnds.length };
}
