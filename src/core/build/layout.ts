import { at as entryAt, done, type Outcome, refused, sure } from '../outcome';
import type { Edit } from '../rig/edits';
import type { Rig } from '../rig/schema';
import { costBound, judge, type Judged } from './board';
import { boardModel, type Model, placeAt, placesNow, type XY } from './board-model';
import { allRows, packRows, rowsNow, shaken, startRows } from './layout-rows';

/** Up to this many devices every arrangement in rows is tried. */
export const TRIED_ALL = 8;
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
        if (costBound(model, at) >= best.judged.cost) continue;
        const judged = judge(model, at);
        if (judged.cost < best.judged.cost - 1e-6) [best, moved] = [{ at, judged }, true];
      }
    }
    if (!moved) break;
  }
  return best;
}
