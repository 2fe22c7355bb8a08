import { at as entryAt } from '../outcome';
import { PLUG_ROOM } from './board-rules';
import { type Model, placesNow, type XY } from './board-model';

/** A foot cannot serve more rows. */
const MOST_ROWS = 3;

/** Rows of items (by index), the rear one first. */
export type Rows = number[][];

/** The gap that two neighbours in a row need for the plugs between them, in mm. */
function gapNeeded(model: Model, left: number, right: number): number {
  const [a, b] = [entryAt(model.items, left), entryAt(model.items, right)];
  // Both stand with their front edges in one line.
  const out = a.sockets
    .filter((s) => s.nx > 0)
    .map((s) => ({ y: s.y - a.depth, room: s.clearance }));
  const into = b.sockets
    .filter((s) => s.nx < 0)
    .map((s) => ({ y: s.y - b.depth, room: s.clearance }));
  let gap = 0;
  for (const s of out) if (s.y + PLUG_ROOM > -b.depth) gap = Math.max(gap, s.room);
  for (const s of into) if (s.y + PLUG_ROOM > -a.depth) gap = Math.max(gap, s.room);
  for (const s of out)
    for (const t of into)
      if (Math.abs(s.y - t.y) < 2 * PLUG_ROOM) gap = Math.max(gap, s.room + t.room);
  return gap;
}

/** The room that plugs of a row take before (1) or behind it (−1). */
const plugRoom = (model: Model, row: readonly number[], way: 1 | -1): number =>
  Math.max(
    0,
    ...row.flatMap((i) =>
      entryAt(model.items, i)
        .sockets.filter((s) => s.ny === way)
        .map((s) => s.clearance),
    ),
  );

/**
 * Stands rows on the board: the front row at the player's edge, further ones behind it or on the
 * raised strips, each from left to right with the gaps that its plugs need, in the middle of the
 * board. Where there is no room things stand over the edge or in one another: a search begins here
 * and does not end here. Pinned items stay where they are; what goes under the deck lies there in a
 * row.
 */
export function packRows(model: Model, rows: Rows): XY[] {
  const { board, items } = model;
  const at: XY[] = placesNow(model);
  const raised = board.raised ?? [];
  const strips = Math.min(raised.length, rows.length - 1);
  let floor = board.depth;
  for (let k = rows.length - 1; k >= 0; k--) {
    const row = entryAt(rows, k);
    const deep = Math.max(0, ...row.map((i) => entryAt(items, i).depth));
    const strip = k < strips ? raised[raised.length - strips + k] : undefined;
    let front = strip && strip.y + strip.depth;
    if (front === undefined) {
      const last = k === rows.length - 1;
      front =
        floor -
        (last ? 0 : Math.max(plugRoom(model, row, 1), plugRoom(model, entryAt(rows, k + 1), -1)));
      floor = front - deep;
    }
    let x = 0;
    const lefts = row.map((i, n) => {
      if (n) x += gapNeeded(model, entryAt(row, n - 1), i);
      const left = x;
      x += entryAt(items, i).width;
      return left;
    });
    const middle = Math.max(0, board.width - x) / 2;
    for (const [n, i] of row.entries())
      at[i] = { x: Math.floor(entryAt(lefts, n) + middle), y: front - entryAt(items, i).depth };
  }
  let x = 0;
  items.forEach((item, i) => {
    if (!item.under || item.pinned) return;
    at[i] = { x, y: Math.max(0, Math.min(20, board.depth - item.depth)) };
    x += item.width + 10;
  });
  return at;
}

/** The order of the signal from right to left, broken into as few rows as it takes; the front row first. */
export function startRows(model: Model, list: readonly number[]): Rows {
  const rows: Rows = [[]];
  let x = 0;
  for (const i of [...list].reverse()) {
    const need = entryAt(model.items, i).width + 50;
    if (x + need > model.board.width && rows.length < MOST_ROWS) {
      rows.unshift([]);
      x = 0;
    }
    entryAt(rows, 0).unshift(i);
    x += need;
  }
  return rows;
}
