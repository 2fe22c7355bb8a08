import { at as entryAt, sure } from '../outcome';
import { PLUG_ROOM } from './board';
import { type Model, placesNow, type XY } from './board-model';

/** A foot cannot serve more rows. */
const MOST_ROWS = 3;

/** Rows of items (by index), the rear one first. */
export type Rows = number[][];

const gaps = new WeakMap<Model, Float64Array>();

function gapBetween(model: Model, left: number, right: number): number {
  let table = gaps.get(model);
  if (!table) gaps.set(model, (table = new Float64Array(model.items.length ** 2).fill(-1)));
  const key = left * model.items.length + right;
  if (entryAt(table, key) < 0) table[key] = gapNeeded(model, left, right);
  return entryAt(table, key);
}

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

const rearRoom = (model: Model, row: readonly number[]): number =>
  Math.max(
    0,
    ...row.map((i) =>
      Math.max(
        0,
        ...entryAt(model.items, i)
          .sockets.filter((s) => s.ny < 0)
          .map((s) => s.clearance),
      ),
    ),
  );
const frontRoom = (model: Model, row: readonly number[]): number =>
  Math.max(
    0,
    ...row.map((i) =>
      Math.max(
        0,
        ...entryAt(model.items, i)
          .sockets.filter((s) => s.ny > 0)
          .map((s) => s.clearance),
      ),
    ),
  );

/**
 * Stands rows on the board: the front row at the player's edge, further ones behind it or on the
 * raised strips, each from left to right with the gaps that its plugs need, in the middle of the
 * board. Pinned items stay where they are and are stepped over; what goes under the deck lies there
 * in a row. Nothing where it does not fit, unless `anyway`: then things stand over the edge.
 */
export function packRows(model: Model, rows: Rows, anyway = false): XY[] | null {
  const { board, items } = model;
  const at: XY[] = placesNow(model);
  const pinned = items.flatMap((item, i) => (item.pinned && !item.under ? [i] : []));
  const raised = board.raised ?? [];
  const strips = Math.min(raised.length, rows.length - 1);
  let floor = board.depth;
  for (let k = rows.length - 1; k >= 0; k--) {
    const row = entryAt(rows, k);
    const deep = Math.max(0, ...row.map((i) => entryAt(items, i).depth));
    const strip = k < strips ? raised[raised.length - strips + k] : undefined;
    let front: number;
    if (strip) {
      if (deep > strip.depth + 5 && !anyway) return null;
      front = strip.y + strip.depth;
    } else {
      front =
        floor -
        (k === rows.length - 1
          ? 0
          : Math.max(frontRoom(model, row), rearRoom(model, entryAt(rows, k + 1))));
      if (
        front - deep < (strips ? sure(raised.at(-1)).y + sure(raised.at(-1)).depth : 0) - 0.5 &&
        !anyway
      )
        return null;
      floor = front - deep;
    }
    let x = 0;
    row.forEach((i, n) => {
      if (n) x += gapBetween(model, entryAt(row, n - 1), i);
      const item = entryAt(items, i);
      for (let again = true; again;) {
        again = false;
        for (const p of pinned) {
          const q = entryAt(at, p);
          if (
            front > q.y &&
            front - item.depth < q.y + entryAt(items, p).depth &&
            x < q.x + entryAt(items, p).width + gapBetween(model, p, i) &&
            x + item.width + gapBetween(model, i, p) > q.x
          ) {
            x = q.x + entryAt(items, p).width + gapBetween(model, p, i);
            again = true;
          }
        }
      }
      at[i] = { x, y: front - item.depth };
      x += item.width;
    });
    if (x > board.width + 0.5 && !anyway) return null;
    if (!pinned.length)
      for (const i of row)
        at[i] = {
          x: Math.floor(entryAt(at, i).x + Math.max(0, board.width - x) / 2),
          y: entryAt(at, i).y,
        };
  }
  let x = 0;
  items.forEach((item, i) => {
    if (!item.under || item.pinned) return;
    at[i] = { x, y: Math.max(0, Math.min(20, board.depth - item.depth)) };
    x += item.width + 10;
  });
  return at;
}

/** Every arrangement of items in up to three rows, one after the other. */
export function* allRows(list: readonly number[]): Generator<Rows> {
  const rows: Rows = [[]];
  const left = new Set(list);
  function* place(): Generator<Rows> {
    if (!left.size) return void (yield rows);
    for (const i of list) {
      if (!left.has(i)) continue;
      left.delete(i);
      sure(rows.at(-1)).push(i);
      yield* place();
      if (left.size && rows.length < MOST_ROWS) {
        rows.push([]);
        yield* place();
        rows.pop();
      }
      sure(rows.at(-1)).pop();
      left.add(i);
    }
  }
  yield* place();
}

/** As they stand now, read into rows from the rear; what is not placed yet goes to the front row. */
export function rowsNow(model: Model, list: readonly number[]): Rows {
  const at = placesNow(model);
  const sorted = [...list].sort(
    (a, b) =>
      entryAt(at, a).y +
      entryAt(model.items, a).depth -
      entryAt(at, b).y -
      entryAt(model.items, b).depth,
  );
  const rows: Rows = [];
  for (const i of sorted) {
    const last = rows.at(-1);
    const front = (k: number) => entryAt(at, k).y + entryAt(model.items, k).depth;
    if (last && (front(i) - front(entryAt(last, 0)) < 60 || rows.length === MOST_ROWS))
      last.push(i);
    else rows.push([i]);
  }
  return rows.map((r) => r.sort((a, b) => entryAt(at, a).x - entryAt(at, b).x));
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

/** One change: two exchanged, or one moved elsewhere, or a row opened or closed by that. */
export function shaken(rows: Rows, random: () => number): Rows {
  const next = rows.map((r) => [...r]);
  const pick = () => {
    const r = Math.floor(random() * next.length);
    return entryAt(next, r).length
      ? { r, i: Math.floor(random() * entryAt(next, r).length) }
      : null;
  };
  const [a, b] = [pick(), pick()];
  if (!a) return next;
  if (b && random() < 0.5)
    [entryAt(next, a.r)[a.i], entryAt(next, b.r)[b.i]] = [
      entryAt(entryAt(next, b.r), b.i),
      entryAt(entryAt(next, a.r), a.i),
    ];
  else if (random() < 0.15) entryAt(next, a.r).reverse();
  else {
    const [taken] = entryAt(next, a.r).splice(a.i, 1);
    const r = Math.floor(random() * (next.length + (next.length < MOST_ROWS ? 1 : 0)));
    if (r === next.length) next.splice(Math.floor(random() * (next.length + 1)), 0, [taken!]);
    else entryAt(next, r).splice(Math.floor(random() * (entryAt(next, r).length + 1)), 0, taken!);
  }
  return next.filter((r) => r.length);
}
