import type { XY } from '../build';
import { at, sure } from '../outcome';

/** The corners of a way that is drawn with straight pieces along the axes. */
export function cornersOf(d: string): XY[] {
  const corners: XY[] = [];
  let [x, y] = [0, 0];
  for (const [, letter, a, b] of d.matchAll(/([MHVhv])(-?[\d.]+)(?:[ ,](-?[\d.]+))?/g)) {
    const v = Number(a);
    if (letter === 'M') [x, y] = [v, Number(b)];
    else if (letter === 'H') x = v;
    else if (letter === 'h') x += v;
    else if (letter === 'V') y = v;
    else y += v;
    corners.push({ x, y });
  }
  return corners;
}

/** The point of a way that lies at a share of its length. */
export function along(points: readonly XY[], share: number): XY {
  const lengths = points
    .slice(1)
    .map((q, i) => Math.abs(q.x - at(points, i).x) + Math.abs(q.y - at(points, i).y));
  let left = share * lengths.reduce((a, b) => a + b, 0);
  for (const [i, mm] of lengths.entries()) {
    const [p, q] = [at(points, i), at(points, i + 1)];
    if (left <= mm && mm > 0)
      return { x: p.x + ((q.x - p.x) * left) / mm, y: p.y + ((q.y - p.y) * left) / mm };
    left -= mm;
  }
  return at(points, 0);
}

/** Where on its way a name is tried, in shares of its length: a few good places first, then all along it. */
const SPOTS = [
  ...[0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8, 0.12, 0.88],
  ...Array.from({ length: 47 }, (_, n) => (n + 1) / 48),
];

/** Things by where they lie along one axis, so that few are looked through for one place. */
export class Cells<T> {
  private readonly cells = new Map<number, T[]>();

  constructor(private readonly size = 100) {}

  /** Something that lies from one place to another. */
  add(from: number, to: number, thing: T): void {
    for (let cell = this.cellOf(from); cell <= this.cellOf(to); cell++) {
      const known = this.cells.get(cell);
      if (known) known.push(thing);
      else this.cells.set(cell, [thing]);
    }
  }

  /** What may lie at a place. */
  at(place: number): readonly T[] {
    return this.cells.get(this.cellOf(place)) ?? [];
  }

  private cellOf(place: number): number {
    return Math.floor(place / this.size);
  }
}

/**
 * A spot for each of several names: the first of its own that is not taken by a name before it, and where
 * nothing solid is; else one that at least no name has taken; where all are, its first.
 */
export function freeSpots(
  names: readonly Iterable<XY>[],
  size: { width: number; height: number },
  isSolid: (p: XY) => boolean,
): XY[] {
  const taken = new Cells<XY>();
  const isFree = (p: XY) =>
    taken
      .at(p.x)
      .every((q) => Math.abs(p.x - q.x) > size.width || Math.abs(p.y - q.y) > size.height);
  return names.map((spots) => {
    const tried: XY[] = [];
    let found: XY | undefined;
    for (const p of spots) {
      tried.push(p);
      if (isSolid(p) || !isFree(p)) continue;
      found = p;
      break;
    }
    const spot = sure(found ?? tried.find(isFree) ?? tried[0]);
    taken.add(spot.x - size.width, spot.x + size.width, spot);
    return spot;
  });
}

function* spotsAlong(points: readonly XY[]): Generator<XY> {
  for (const share of SPOTS) yield along(points, share);
}

/**
 * A spot on each way for its name, where neither another name nor anything solid is; the middle where
 * all of it is taken.
 */
export const nameSpots = (
  ways: readonly (readonly XY[])[],
  size: { width: number; height: number },
  isSolid: (p: XY) => boolean,
): XY[] => freeSpots(ways.map(spotsAlong), size, isSolid);
