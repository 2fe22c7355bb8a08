import { at as entryAt, done, type Outcome, refused, sure } from '../outcome';
import type { Edit } from '../rig/edits';
import type { Rig } from '../rig/schema';
import type { MipSolver } from '../optimum/mip';
import { Annealing, dice, type Found } from './anneal';
import { judge, type Judged } from './board';
import { HITS } from './board-rules';
import { boardModel, type Model, placeAt, placesNow, type XY } from './board-model';
import { layoutBound } from './layout-bound';
import { packRows, startRows } from './layout-rows';
import { howMany } from '../units';

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

/** A layout found: where everything goes, against how it stands now. */
export interface LayoutProposal {
  edits: Edit[];
  now: LayoutFigures | null;
  found: LayoutFigures;
  /** No layout of these devices on this board has less lead than this, in m: that is proven. */
  leastMetres: number | null;
  /** Moves that were tried. */
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

const free = (model: Model): number[] => model.items.flatMap((item, i) => (item.pinned ? [] : [i]));

export interface LayoutChoice {
  /** Moves against the usual number of them. */
  effort?: number;
  mayTurn?: boolean;
  /** What proves how little lead there can be; without one nothing is proven. */
  solver?: MipSolver;
}

type Tell = (
  share: number,
  words: string,
  best?: { edits: Edit[]; figures: LayoutFigures },
) => Promise<void>;
/**
 * Looks for a good layout: everything may stand anywhere on the board and be turned by quarters
 * (unless `mayTurn` is off), and is annealed several times, from the order in which signal meets it
 * and from how it stands now; then pushed by millimetres as long as that helps. Hits outweigh rules,
 * and rules any length of lead. What is pinned stays.
 */
export async function proposeLayout(
  rig: Rig,
  boardId: string,
  add: readonly string[],
  pressed: ReadonlyMap<string, number>,
  order: readonly string[],
  tell: Tell,
  { effort = 1, mayTurn = true, solver }: LayoutChoice = {},
): Promise<Outcome<LayoutProposal>> {
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
  const search = new Search(model, list, order, tell, mayTurn);
  const best = await search.run(effort);
  const laid = asFound(model, best);
  const found = judge(laid, best.at);
  if (!canBeBuilt(model, found))
    return refused(
      `It does not fit: the devices are too many or too deep for ${board.width} ` +
        `by ${board.depth} mm. Take a larger board, turn something, or leave something out.`,
    );
  const placed = model.items.filter((i) => i.device.at?.board === board.id).length;
  const now = placed === model.items.length ? judge(model, placesNow(model)) : null;
  return done({
    edits: editsOf(laid, best.at),
    now: now && figures(model, now),
    found: figures(model, found),
    leastMetres: solver ? layoutBound(model, mayTurn, solver) / 1000 : null,
    tried: search.tried,
    better: !now || found.cost < now.cost - 0.5,
  });
}

/** Whether a layout can be built; pinned devices that are in the way are their owner's. */
const canBeBuilt = (model: Model, { clashes }: Judged): boolean =>
  model.items.some((i) => i.pinned) || !clashes.some((c) => HITS.has(c.what));

/** The model with its items turned as in a layout that was found. */
const asFound = (model: Model, { turns }: Found): Model => ({
  ...model,
  items: turns.map((turn, i) => model.asTurned(i, turn)),
});

/** Edits that put the items of a model where they are to stand; those that stand there stay. */
const editsOf = (model: Model, at: readonly XY[]): Edit[] =>
  model.items.flatMap((item, i): Edit[] => {
    const place = placeAt(model, i, entryAt(at, i));
    const now = item.device.at;
    return now?.board === model.board.id &&
      now.x === place.x &&
      now.y === place.y &&
      (now.turn ?? 0) === (place.turn ?? 0) &&
      (now.under ?? false) === (place.under ?? false)
      ? []
      : [{ edit: 'placeOnBoard', device: item.device.id, at: place }];
  });

/** Annealings: from new starts, then from the best so far, warmed up to this share of the whole cooling. */
const RUNS = 6;
const FRESH = 3;
const REHEATED = 0.3;
/** Moves of each device in one annealing; in all of one, at most; and between two words on how far it is. */
const MOVES_A_DEVICE = 12_000;
const MOST_MOVES = 3_200_000;
const BETWEEN_WORDS = 5000;
const POLISHES = 40;

/** Moves of one annealing: beyond two dozen devices fewer, since each takes longer. */
const movesFor = (devices: number): number =>
  Math.min(MOVES_A_DEVICE * devices, MOST_MOVES / Math.max(devices, 20));

/** The search for a layout: the best so far, and how many moves it took. */
class Search {
  private best: Found | undefined;
  tried = 0;

  constructor(
    private readonly model: Model,
    private readonly list: readonly number[],
    private readonly order: readonly string[],
    private readonly tell: Tell,
    private readonly mayTurn: boolean,
  ) {}

  /** Anneals from several starts, and polishes what each finds. */
  async run(effort: number): Promise<Found> {
    const { model, list, order } = this;
    const place = (i: number) => order.indexOf(entryAt(model.items, i).device.id);
    const byWalk = list
      .filter((i) => !entryAt(model.items, i).under)
      .sort((a, b) => place(b) - place(a));
    const asWalked = packRows(model, startRows(model, byWalk));
    const starts = [asWalked, standsNow(model) ? placesNow(model) : asWalked];
    const steps = Math.round(movesFor(list.length) * effort);
    let best: Found | undefined;
    for (let run = 0; run < RUNS; run++) {
      const found = await this.anneal(
        starts[run] ?? asWalked,
        run < FRESH ? undefined : best,
        run,
        steps,
      );
      if (!best || found.cost < best.cost) best = found;
    }
    return sure(best);
  }

  private async anneal(start: readonly XY[], again: Found | undefined, run: number, steps: number) {
    const annealing = new Annealing(this.model, start, this.list, this.mayTurn, dice(7 + run));
    const warm = again ? REHEATED : 0;
    if (again) annealing.restart(again);
    for (let n = 0; n < steps; n += BETWEEN_WORDS) {
      const some = Math.min(BETWEEN_WORDS, steps - n);
      const share = (done: number) => warm + ((1 - warm) * done) / steps;
      annealing.cool(some, share(n), share(n + some));
      this.tried += some;
      if (!this.best || annealing.best.cost < this.best.cost) this.best = annealing.best;
      await this.say((run + n / steps) / RUNS);
    }
    annealing.polish(POLISHES);
    return annealing.best;
  }

  private say(share: number): Promise<void> {
    const { best, model } = this;
    if (!best) return this.tell(share, 'nothing fits yet');
    const laid = asFound(model, best);
    const judged = judge(laid, best.at);
    return this.tell(
      share,
      `best so far ${(judged.mm / 1000).toFixed(2)} m, ${howMany(judged.crossings, 'crossing')}` +
        (judged.clashes.length ? `, ${judged.clashes.length} to put right` : ''),
      { edits: editsOf(laid, best.at), figures: figures(laid, judged) },
    );
  }
}

/** Whether all of them stand on the board already. */
const standsNow = (model: Model): boolean =>
  model.items.every((i) => i.device.at?.board === model.board.id);
