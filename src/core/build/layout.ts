import { at as entryAt, done, type Outcome, refused, sure } from '../outcome';
import type { Edit } from '../rig/edits';
import type { Rig } from '../rig/schema';
import { costBound, judge, type Judged, PLUG_ROOM } from './board';
import { boardModel, type Model, placeAt, placesNow, type XY } from './board-model';

/** Up to this many devices every arrangement in rows is tried. */
export const TRIED_ALL = 8;
/** A foot cannot serve more rows. */
const MOST_ROWS = 3;

/** Rows of items (by index), the rear one first. */
export type Rows = number[][];

/**
 * An arrangement as figures a person can compare: metres of lead on the board, pF of it, crossings,
 * what is wrong.
 */
export interface LayoutFigures {
  metres: number;
  pF: number;
  crossings: number;
  clashes: number;
  cost: number;
}

/**
 * A layout found: where everything goes, against how it stands now. `proven`: no arrangement in
 * rows is better.
 */
export interface LayoutProposal {
  edits: Edit[];
  now: LayoutFigures | null;
  found: LayoutFigures;
  proven: boolean;
  tried: number;
  better: boolean;
}

/** What each lead has a metre, in pF, where it is made of the rig's usual cable. */
const pfOf = (model: Model, judged: Judged): number =>
  model.runs.reduce(
    (sum, r, i) =>
      sum +
      (entryAt(judged.paths, i).mm / 1000) *
        (r.lead.type === 'midi' ||
        r.lead.type === 'usb' ||
        r.lead.type === 'digital' ||
        r.lead.type === 'speaker'
          ? 0
          : (r.lead.pfPerMetre ?? 100)),
    0,
  );

const figures = (model: Model, judged: Judged): LayoutFigures => ({
  metres: judged.mm / 1000,
  pF: pfOf(model, judged),
  crossings: judged.crossings,
  clashes: judged.clashes.length,
  cost: judged.cost,
});

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

const free = (model: Model): number[] =>
  model.items.flatMap((item, i) => (item.under || item.pinned ? [] : [i]));

/** A random sequence that is the same every time. */
function dice(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
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

type Tell = (
  share: number,
  words: string,
  best?: { edits: Edit[]; figures: LayoutFigures },
) => Promise<void>;
interface Best {
  at: XY[];
  judged: Judged;
}

/**
 * Looks for the best layout: exactly, over all arrangements in rows, for up to eight devices; for
 * more by exchanging and moving them as a melt that cools, from the order in which signal meets
 * them and from how they stand now. Then single devices are pushed a little as long as that helps.
 * What is pinned stays.
 */
export async function proposeLayout(
  rig: Rig,
  boardId: string,
  add: readonly string[],
  pressed: ReadonlyMap<string, number>,
  order: readonly string[],
  tell: Tell,
  effort = 1,
): Promise<Outcome<LayoutProposal>> {
  // The idea: pedals stand in rows, and a row is an order. Up to a handful of devices every way to
  // deal them into rows and to order each row is tried, with a lower bound on the cost that spares
  // most of them; more are dealt as the walk goes, and the rows shaken at random and mended, again
  // and again from the best. Whatever is found is then polished: each device is pushed by
  // millimetres where that shortens leads or frees plugs. What is pinned stays throughout, and the
  // best so far can be taken at any time.
  const board = rig.boards?.find((b) => b.id === boardId);
  if (!board) return refused('That board is not there any more.');
  const model = boardModel(rig, board, pressed, add);
  const list = free(model);
  if (!list.length)
    return refused(
      model.items.length
        ? 'Everything on this board is pinned. Take out a pin, then there is something to move.'
        : 'Nothing stands on this board yet. Place devices on it, or choose some to add.',
    );
  const search = new Search(model, list, order, tell, effort);
  await search.melt();
  if (search.isProven) await search.tryAll();
  if (!search.fits)
    return refused(
      `It does not fit: the devices are too many or too deep for ${board.width} ` +
        `by ${board.depth} mm. Take a larger board, turn something, or leave something out.`,
    );
  const best = polished(model, sure(search.best), list);
  const placed = model.items.filter((i) => i.device.at?.board === board.id).length;
  const now = placed === model.items.length ? judge(model, placesNow(model)) : null;
  const found = judge(
    model,
    best.at.map((p) => ({ x: Math.round(p.x), y: Math.round(p.y) })),
  );
  return done({
    edits: editsOf(model, best.at),
    now: now && figures(model, now),
    found: figures(model, found),
    proven: search.isProven,
    tried: search.tried,
    better: !now || found.cost < now.cost - 0.5,
  });
}

/** Edits that put the items of a model where they are to stand; those that stand there stay. */
const editsOf = (model: Model, at: readonly XY[]): Edit[] =>
  model.items.flatMap((item, i): Edit[] => {
    const place = placeAt(model, i, entryAt(at, i));
    const now = item.device.at;
    return now?.board === model.board.id &&
      now.x === place.x &&
      now.y === place.y &&
      (now.under ?? false) === (place.under ?? false)
      ? []
      : [{ edit: 'placeOnBoard', device: item.device.id, at: place }];
  });

/** The search for a layout: what was found so far, and the ways to look for more. */
class Search {
  best: Best | undefined;
  tried = 0;
  /** Whether so few devices move that every way to deal and order them is tried. */
  readonly isProven: boolean;
  private readonly share: number;

  constructor(
    private readonly model: Model,
    private readonly list: readonly number[],
    private readonly order: readonly string[],
    private readonly tell: Tell,
    private readonly effort: number,
  ) {
    this.isProven = list.length <= TRIED_ALL;
    this.share = this.isProven ? 0.1 : 1;
  }

  /** Whether the best found can be built; pinned devices that are in the way are their owner's. */
  get fits(): boolean {
    if (!this.best) return false;
    return (
      this.model.items.some((i) => i.pinned) ||
      !this.best.judged.clashes.some(
        (c) => c.what === 'outside' || c.what === 'overlap' || c.what === 'too-high',
      )
    );
  }

  /**
   * What a layout costs; `Infinity` where it does not fit, or where it is certain to cost more than
   * `limit`.
   */
  private consider(at: XY[] | null, limit: number): number {
    this.tried++;
    if (!at || costBound(this.model, at) >= limit) return Infinity;
    const judged = judge(this.model, at);
    if (!this.best || judged.cost < this.best.judged.cost - 1e-6)
      this.best = { at: at.map((p) => ({ ...p })), judged };
    return judged.cost;
  }

  private say(share: number): Promise<void> {
    const { best, model } = this;
    return this.tell(
      share,
      best
        ? `best so far ${(best.judged.mm / 1000).toFixed(2)} m, ${best.judged.crossings} crossings`
        : 'nothing fits yet',
      best && { edits: editsOf(model, best.at), figures: figures(model, best.judged) },
    );
  }

  /**
   * Shakes rows at random and keeps what costs less, or a little more while it is hot: from the
   * order of the walk, and from how the devices stand now.
   */
  async melt(): Promise<void> {
    const { model, list, order } = this;
    const place = (i: number) => order.indexOf(entryAt(model.items, i).device.id);
    const steps = Math.round(
      Math.min(40_000, (this.isProven ? 300 : 1200) * list.length) * this.effort,
    );
    const random = dice(7);
    const byWalk = [...list].sort((a, b) => place(b) - place(a));
    const starts = [startRows(model, byWalk), rowsNow(model, list)];
    for (const [s, start] of starts.entries()) {
      let rows = start;
      let cost = this.consider(packRows(model, rows, true), Infinity);
      for (let n = 0; n < steps; n++) {
        const heat = 400 * (1 - n / steps) ** 2 + 0.5;
        const next = shaken(rows, random);
        // Drawn before it is judged, so that what is certain to be refused need not be.
        const limit = cost - heat * Math.log(Math.max(1e-12, random()));
        const price = this.consider(packRows(model, next, true), limit);
        if (price < limit) [rows, cost] = [next, price];
        if (n % 400 === 0) await this.say((this.share * (s + n / steps)) / starts.length);
      }
    }
  }

  /** Tries every way; what came out of the melt prunes most of them. */
  async tryAll(): Promise<void> {
    const n = this.list.length;
    const whole = this.list.reduce((f, _, i) => f * (i + 1), 1) * (n + ((n - 1) * (n - 2)) / 2);
    let seen = 0;
    for (const rows of allRows([...this.list])) {
      this.consider(packRows(this.model, rows), this.best?.judged.cost ?? Infinity);
      if (++seen % 20_000 === 0) await this.say(this.share + (1 - this.share) * (seen / whole));
    }
  }
}

/** As they stand now, read into rows from the rear; what is not placed yet goes to the front row. */
function rowsNow(model: Model, list: readonly number[]): Rows {
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
function startRows(model: Model, list: readonly number[]): Rows {
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
function shaken(rows: Rows, random: () => number): Rows {
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

/** Pushes single devices and whole rows by small steps as long as it gets better. */
function polished(model: Model, start: Best, list: readonly number[]): Best {
  let best = start;
  const rows = new Map<number, number[]>();
  for (const i of list) {
    const front = Math.round(entryAt(best.at, i).y + entryAt(model.items, i).depth);
    rows.set(front, [...(rows.get(front) ?? []), i]);
  }
  const groups = [...rows.values(), ...list.map((i) => [i])];
  for (let pass = 0; pass < 6; pass++) {
    let moved = false;
    for (const group of groups) {
      for (const dx of [-80, 80, -30, 30, -10, 10, -3, 3]) {
        const at = best.at.map((p, i) => (group.includes(i) ? { x: p.x + dx, y: p.y } : p));
        const judged = judge(model, at);
        if (judged.cost < best.judged.cost - 1e-6) [best, moved] = [{ at, judged }, true];
      }
    }
    if (!moved) break;
  }
  return best;
}
