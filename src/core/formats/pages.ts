import { at } from '../outcome';
import type { XY } from '../build';
import { cornersOf } from '../draw/spots';
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
  /** How far under its way a name beside a page stands, so that none lies on another. */
  down: number;
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
 * lie on one another, names beside it move down.
 */
export function connectorsOf(
  ways: readonly { d: string; words: (leaves: boolean) => string }[],
  page: Window,
): Connectors {
  const all = ways.flatMap(({ d, words }) =>
    crossingsOf(d, page).map((c): Connector => ({
      ...c,
      words: words(c.leaves),
      level: 0,
      down: 0,
    })),
  );
  for (const isLater of [false, true]) {
    let last = -Infinity;
    for (const c of all
      .filter((x) => x.axis === 'x' && x.later === isLater)
      .sort((a, b) => a.y - b.y)) {
      c.down = Math.max(0, last + NAME_LINE - c.y);
      last = c.y + c.down;
    }
  }
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
    const y =
      c.axis === 'x' ? c.y + 3 + c.down : c.y + out * (6 + NAME_LINE * c.level) + (c.later ? 6 : 0);
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
