import { at as entryAt } from '../outcome';
import type { Item, Model, Run, XY } from './board-model';

/** From the deck down to the rails and up again at the other end, in mm each. */
const DROP = 20;

/** Where a run goes: its corners from plug to plug, and how long the lead is from plug to plug, in mm. */
export interface Path {
  points: XY[];
  mm: number;
  below: boolean;
}

/**
 * How high an item stands: the raised strip under the most of it, in mm; and whether it stands half
 * off one.
 */
export function standing(model: Model, item: Item, at: XY): { up: number; half: boolean } {
  let up = 0;
  let half = false;
  for (const r of model.board.raised ?? []) {
    const overlap = Math.min(at.y + item.depth, r.y + r.depth) - Math.max(at.y, r.y);
    if (overlap <= 0) continue;
    if (overlap > item.depth / 2) up = r.by;
    if (overlap < item.depth - 5 && overlap > 5) half = true;
  }
  return item.under ? { up: -DROP, half: false } : { up, half };
}

const crosses = (
  ax: number,
  ay: number,
  bx: number,
  by: number,
  left: number,
  top: number,
  right: number,
  bottom: number,
): boolean =>
  Math.max(ax, bx) > left + 0.5 &&
  Math.min(ax, bx) < right - 0.5 &&
  Math.max(ay, by) > top + 0.5 &&
  Math.min(ay, by) < bottom - 0.5;

/** Whether a straight piece on the deck runs into a body. */
function blocked(
  model: Model,
  at: readonly XY[],
  ax: number,
  ay: number,
  bx: number,
  by: number,
): boolean {
  for (let i = 0; i < model.items.length; i++) {
    const item = entryAt(model.items, i);
    if (item.under) continue;
    if (
      crosses(
        ax,
        ay,
        bx,
        by,
        entryAt(at, i).x,
        entryAt(at, i).y,
        entryAt(at, i).x + item.width,
        entryAt(at, i).y + item.depth,
      )
    )
      return true;
  }
  return false;
}

/**
 * The way of one lead. On the deck from plug to plug in at most two straight pieces where no body
 * is in the way; else down, along a rail or an edge, and up again. A lead that goes elsewhere
 * leaves at the nearest of the rear and side edges.
 */
export function pathOf(model: Model, at: readonly XY[], run: Run): Path {
  const from = entryAt(entryAt(model.items, run.a).sockets, run.aSocket);
  const start = entryAt(at, run.a);
  const [ax, ay] = [start.x + from.tipX, start.y + from.tipY];
  const jackA = { x: start.x + from.x, y: start.y + from.y };
  if (run.b < 0) {
    const { width } = model.board;
    const ways = [
      { x: ax, y: 0 },
      { x: 0, y: ay },
      { x: width, y: ay },
    ]
      .map((p) => ({ p, mm: Math.abs(p.x - ax) + Math.abs(p.y - ay) }))
      .sort((a, b) => a.mm - b.mm);
    const best = ways.find((w) => !blocked(model, at, ax, ay, w.p.x, w.p.y));
    if (best) return { points: [jackA, { x: ax, y: ay }, best.p], mm: best.mm, below: false };
    return {
      points: [jackA, { x: ax, y: ay }, entryAt(ways, 0).p],
      mm: entryAt(ways, 0).mm + DROP,
      below: true,
    };
  }
  const to = entryAt(entryAt(model.items, run.b).sockets, run.bSocket);
  const end = entryAt(at, run.b);
  const [bx, by] = [end.x + to.tipX, end.y + to.tipY];
  const jackB = { x: end.x + to.x, y: end.y + to.y };
  const climb = Math.abs(
    standing(model, entryAt(model.items, run.a), start).up -
      standing(model, entryAt(model.items, run.b), end).up,
  );
  const across = Math.abs(ax - bx);
  if (!entryAt(model.items, run.a).under && !entryAt(model.items, run.b).under) {
    for (const c of [
      { x: bx, y: ay },
      { x: ax, y: by },
    ]) {
      if (!blocked(model, at, ax, ay, c.x, c.y) && !blocked(model, at, c.x, c.y, bx, by))
        return {
          points: [jackA, { x: ax, y: ay }, c, { x: bx, y: by }, jackB],
          mm: across + Math.abs(ay - by) + climb,
          below: false,
        };
    }
  }
  let lane = entryAt(model.lanes, 0);
  let best = Infinity;
  for (const l of model.lanes) {
    const mm = Math.abs(ay - l) + Math.abs(by - l);
    if (mm < best - 1e-9) [lane, best] = [l, mm];
  }
  return {
    points: [
      jackA,
      { x: ax, y: ay },
      { x: ax, y: lane },
      { x: bx, y: lane },
      { x: bx, y: by },
      jackB,
    ],
    mm: best + across + 2 * DROP + climb,
    below: true,
  };
}

/**
 * How often leads cross: pieces of different leads that meet at right angles, on the same side of
 * the deck.
 */
export function crossingsOf(paths: readonly Path[]): number {
  // Pieces that lie, and pieces that stand: [path, side, at, from, to].
  const flat: number[] = [];
  const upright: number[] = [];
  paths.forEach((path, n) => {
    const side = path.below ? 1 : 0;
    for (let k = 1; k < path.points.length; k++) {
      const [p, q] = [entryAt(path.points, k - 1), entryAt(path.points, k)];
      if (p.y === q.y && p.x !== q.x)
        flat.push(n, side, p.y, Math.min(p.x, q.x), Math.max(p.x, q.x));
      else if (p.x === q.x && p.y !== q.y)
        upright.push(n, side, p.x, Math.min(p.y, q.y), Math.max(p.y, q.y));
    }
  });
  let count = 0;
  for (let i = 0; i < flat.length; i += 5) {
    const [n, side, y, from, to] = [
      entryAt(flat, i),
      entryAt(flat, i + 1),
      entryAt(flat, i + 2),
      entryAt(flat, i + 3),
      entryAt(flat, i + 4),
    ];
    for (let j = 0; j < upright.length; j += 5) {
      if (
        entryAt(upright, j + 2) > from &&
        entryAt(upright, j + 2) < to &&
        entryAt(upright, j + 3) < y &&
        entryAt(upright, j + 4) > y &&
        upright[j + 1] === side &&
        upright[j] !== n
      )
        count++;
    }
  }
  return count;
}
