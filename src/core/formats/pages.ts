import { at } from '../outcome';
import type { XY } from '../build';
import { type Element, INK, text } from './sheet';

/** What of a drawing fits on one page while its letters can be read, in the units of the drawing. */
export interface Room {
  width: number;
  height: number;
}

/** A stretch of one axis of a drawing. */
export type Stretch = readonly [from: number, to: number];

/** A part of a drawing that one page holds. */
export interface Window {
  x: Stretch;
  y: Stretch;
}

/** All of a drawing. */
export const EVERYTHING: Window = { x: [-Infinity, Infinity], y: [-Infinity, Infinity] };

/**
 * Cuts a length into pieces of at most `room`, each as long as can be without cutting through
 * anything solid; through it where it is longer than a page.
 */
export function cutsOf(length: number, room: number, solid: readonly Stretch[]): Stretch[] {
  const out: Stretch[] = [];
  let from = 0;
  while (length - from > room) {
    let to = from + room;
    for (let again = true; again;) {
      const hit = solid.find(([a, b]) => a < to && to < b);
      again = hit !== undefined && hit[0] > from;
      if (hit && again) to = hit[0];
    }
    out.push([from, to]);
    from = to;
  }
  out.push([from, length]);
  return out;
}

/** Whether a box lies on a page: its middle does. */
export const isOn = (
  page: Window,
  box: { x: number; y: number; width?: number; height?: number },
) => within(page.x, box.x + (box.width ?? 0) / 2) && within(page.y, box.y + (box.height ?? 0) / 2);

const within = ([from, to]: Stretch, v: number): boolean => v >= from && v < to;

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

/** Where a way leaves a page, and whether it goes on or comes from there. */
export interface Crossing extends XY {
  axis: 'x' | 'y';
  /** Over the later edge of the page (right, foot), or the earlier one. */
  later: boolean;
  /** Whether the way leaves the page here. */
  leaves: boolean;
}

/** Where a way crosses the edges of a page. */
export function crossingsOf(d: string, page: Window): Crossing[] {
  const corners = cornersOf(d);
  return corners.slice(1).flatMap((to, i): Crossing[] => {
    const from = at(corners, i);
    return (['x', 'y'] as const).flatMap((axis) => {
      const other = axis === 'x' ? 'y' : 'x';
      if (from[other] !== to[other] || !within(page[other], from[other])) return [];
      return page[axis].flatMap((edge, k): Crossing[] => {
        if (Math.min(from[axis], to[axis]) >= edge || Math.max(from[axis], to[axis]) <= edge)
          return [];
        const leaves = k === 1 ? to[axis] > edge : to[axis] < edge;
        return [{ x: from.x, y: from.y, [axis]: edge, axis, later: k === 1, leaves }];
      });
    });
  });
}

/** A name at the edge of a page, where a way goes on on another: the same name on both. */
interface Connector extends Crossing {
  words: string;
  /** How many names stand between it and the edge, so that none lies on another. */
  level: number;
}

const NAME_PX = 9;
const NAME_LINE = 10;
/** What names take beside a page. */
export const NAMES_BESIDE = 44;

/** The names at the edges of a page, and how much room they take over and under it. */
export interface Connectors {
  all: Connector[];
  over: number;
  under: number;
}

/**
 * Names all ways that leave a page or come to it. Names over and under it are stacked where they would
 * lie on one another.
 */
export function connectorsOf(
  ways: readonly { d: string; words: (leaves: boolean) => string }[],
  page: Window,
): Connectors {
  const all = ways.flatMap(({ d, words }) =>
    crossingsOf(d, page).map((c): Connector => ({ ...c, words: words(c.leaves), level: 0 })),
  );
  const room = { over: 0, under: 0 };
  for (const side of ['over', 'under'] as const) {
    const here = all
      .filter((c) => c.axis === 'y' && c.later === (side === 'under'))
      .sort((a, b) => a.x - b.x);
    const ends: number[] = [];
    for (const c of here) {
      const level = ends.findIndex((end) => end < c.x);
      c.level = level < 0 ? ends.length : level;
      ends[c.level] = c.x + c.words.length * NAME_PX * 0.6 + 8;
    }
    room[side] = ends.length && 8 + NAME_LINE * ends.length;
  }
  return { all, ...room };
}

/** Draws names at the edges of a page, each with a dot where its way is cut. */
export function drawConnectors(layer: Element, { all }: Connectors): void {
  for (const c of all) {
    layer.ele('circle', { cx: c.x, cy: c.y, r: 2.5, fill: INK });
    const out = c.later ? 1 : -1;
    const y = c.axis === 'x' ? c.y + 3 : c.y + out * (6 + NAME_LINE * c.level) + (c.later ? 6 : 0);
    if (c.axis === 'y' && c.level)
      layer.ele('line', { x1: c.x, y1: c.y, x2: c.x, y2: y, stroke: INK, 'stroke-width': 0.6 });
    text(layer, c.axis === 'x' ? c.x + 5 * out : c.x + 3, y, c.words, {
      'font-size': NAME_PX,
      'font-weight': 700,
      'text-anchor': c.axis === 'x' && !c.later ? 'end' : 'start',
      'data-connector': c.words,
    });
  }
}

/** The name of the `n`th connector: A to Z, then AA and on. */
export const connectorName = (n: number): string =>
  (n >= 26 ? connectorName(Math.floor(n / 26) - 1) : '') + String.fromCharCode(65 + (n % 26));

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

/** Where on its way a name is tried first, in shares of its length. */
const SPOTS = [0.5, 0.4, 0.6, 0.3, 0.7, 0.2, 0.8, 0.12, 0.88];

/**
 * A spot on each way for its name, where neither another name nor anything solid is; the middle where
 * all of it is taken.
 */
export function nameSpots(
  ways: readonly (readonly XY[])[],
  size: { width: number; height: number },
  isSolid: (p: XY) => boolean,
): XY[] {
  const taken: XY[] = [];
  for (const points of ways) {
    const spots = SPOTS.map((share) => along(points, share));
    const isFree = (p: XY) =>
      !isSolid(p) &&
      taken.every((q) => Math.abs(p.x - q.x) > size.width || Math.abs(p.y - q.y) > size.height);
    taken.push(spots.find(isFree) ?? at(spots, 0));
  }
  return taken;
}
