import { type Item, type Model, type Turn, type XY } from './board-model';
import { BoardClashes } from './board-clashes';
import { BoardRow, type Move } from './board-row';
import { type Clash, LAYOUT_PRICE, priceOf, type Tell } from './board-rules';
import { BoardWays, type Path, waysRoom } from './board-ways';

/**
 * Items on a board, with all that follows from where they stand: what is wrong, the ways of the
 * leads, how often they cross, what it costs. A move works out again only what it touches, and can be
 * taken back.
 */
export class BoardState {
  private readonly row: BoardRow;
  private readonly clash: BoardClashes;
  private readonly ways: BoardWays;
  /** Where the pull of foot and weight on each item, and the prices of what is wrong, begin in the row. */
  private readonly at: Record<'soft' | 'own' | 'reach' | 'pairs', number>;
  /** Price of what is wrong as it is judged, and as a hot search feels it. */
  private full = 0;
  private hot = 0;
  /** mm of lead, crossings, and the pull of foot and weight. */
  private lead = 0;
  private before = { full: 0, hot: 0, lead: 0 };
  private readonly pressed: number[];

  constructor(
    readonly model: Model,
    places: readonly XY[],
  ) {
    const n = model.items.length;
    const row = (this.row = new BoardRow(model, 5 * n + 2 * n * n + waysRoom(model.runs.length)));
    this.at = {
      soft: row.take(n),
      own: row.take(2 * n),
      reach: row.take(2 * n),
      pairs: row.take(2 * n * n),
    };
    this.clash = new BoardClashes(row);
    this.ways = new BoardWays(row);
    this.pressed = model.items.flatMap((item, i) => (item.pressed ? [i] : []));
    places.forEach(({ x, y }, i) => this.stand({ i, x, y, turn: row.now[i]!.item.turn }));
    for (let i = 0; i < n; i++) {
      this.chargeOwn(i);
      for (let j = i + 1; j < n; j++) this.chargePair(i, j);
      this.chargeReach(i);
    }
    for (let k = 0; k < model.runs.length; k++) this.lead += this.ways.lay(k);
    row.keep();
  }

  /** As it is judged. */
  get cost(): number {
    return this.lead + this.full;
  }

  /** Whether nothing hits and no rule is broken. */
  get isRight(): boolean {
    return this.full < LAYOUT_PRICE.rule / 2;
  }

  /** With hits and rules at `weight` times what they weigh in a search. */
  costAt(weight: number): number {
    return this.lead + weight * this.hot;
  }

  place(i: number): Move {
    return this.row.place(i);
  }

  places(): XY[] {
    return this.row.now.map((_, i) => ({ x: this.row.x(i), y: this.row.y(i) }));
  }

  turns(): Turn[] {
    return this.row.now.map((b) => b.item.turn);
  }

  /** How long the lead of a run is now, in mm. */
  leadMm(run: number): number {
    return this.ways.mm(run);
  }

  /** An item as it lies when it is turned. */
  turned(i: number, turn: Turn): Item {
    return this.row.body(i, turn).item;
  }

  /** Everything that is wrong. */
  clashes(): Clash[] {
    const out: Clash[] = [];
    const tell: Tell = (what, a, b, mm, jack) =>
      out.push({ what, a, b, mm, ...(jack !== undefined && { jack }) });
    for (let i = 0; i < this.row.n; i++) {
      this.clash.own(i, tell);
      for (let j = i + 1; j < this.row.n; j++) this.clash.pair(i, j, tell);
      this.clash.reach(i, tell);
    }
    return out;
  }

  /** What is wrong with one item, by itself or with another, but for who reaches it. */
  clashesOf(i: number): Clash[] {
    const out: Clash[] = [];
    const tell: Tell = (what, a, b, mm) => out.push({ what, a, b, mm });
    this.clash.own(i, tell);
    for (let j = 0; j < this.row.n; j++)
      if (j !== i) this.clash.pair(Math.min(i, j), Math.max(i, j), tell);
    return out;
  }

  /** The ways of all leads. */
  paths(): Path[] {
    return this.ways.paths();
  }

  crossings(): number {
    return this.ways.crossings();
  }

  /** Makes moves; `back` takes them back, until the next are made. */
  make(moves: readonly Move[]): void {
    this.try(moves, 1, Infinity);
  }

  /**
   * Makes moves, unless what they hit and the leads of what moved, as the crow walks, cost too much
   * already: over `limit`, with hits and rules at `weight`. Says whether they were made.
   */
  try(moves: readonly Move[], weight: number, limit: number): boolean {
    this.row.keep();
    this.before = { full: this.full, hot: this.hot, lead: this.lead };
    const touched: number[] = [];
    for (const move of moves) {
      this.addBox(move.i, touched);
      this.stand(move);
      this.addBox(move.i, touched);
    }
    for (const { i } of moves) {
      this.chargeOwn(i);
      for (let j = 0; j < i; j++) this.chargePair(j, i);
      for (let j = i + 1; j < this.row.n; j++) this.chargePair(i, j);
    }
    for (const i of this.pressed) this.chargeReach(i);
    if (this.costAt(weight) + this.ways.gained(moves) > limit) {
      this.back();
      return false;
    }
    for (let k = 0; k < this.model.runs.length; k++)
      if (this.ways.isTouched(k, moves, touched)) this.lead += this.ways.lay(k);
    return true;
  }

  back(): void {
    this.row.back();
    this.full = this.before.full;
    this.hot = this.before.hot;
    this.lead = this.before.lead;
  }

  /** Stands an item somewhere, and pulls at it: to the foot what is pressed, to the middle what is heavy. */
  private stand(move: Move): void {
    const { row } = this;
    row.stand(move);
    const { board } = this.model;
    const { width, depth, item } = row.now[move.i]!;
    const middle = move.x + width / 2;
    const foot = board.width * (board.foot === 'left' ? 0.35 : 0.65);
    const toFoot = Math.abs(middle - foot) + (board.depth - move.y - depth);
    const soft =
      item.pressed * LAYOUT_PRICE.foot * toFoot +
      (item.grams / 1000) * LAYOUT_PRICE.heavy * Math.abs(middle - board.width / 2) +
      (move.turn ? LAYOUT_PRICE.turned : 0);
    const at = this.at.soft + move.i;
    this.lead += soft - row.s[at]!;
    row.put(at, soft);
  }

  // What is wrong costs as it is told, into two entries: as judged, and as a hot search feels it.
  private charged = { full: 0, hot: 0 };
  private readonly charge: Tell = (what, _a, _b, mm) => {
    const { full, hot } = priceOf(what, mm);
    this.charged.full += full;
    this.charged.hot += hot;
  };

  private settle(at: number): void {
    const { row, charged } = this;
    this.full += charged.full - row.s[at]!;
    this.hot += charged.hot - row.s[at + 1]!;
    row.put(at, charged.full);
    row.put(at + 1, charged.hot);
    charged.full = 0;
    charged.hot = 0;
  }

  private chargeOwn(i: number): void {
    this.clash.own(i, this.charge);
    this.settle(this.at.own + 2 * i);
  }
  private chargePair(i: number, j: number): void {
    this.clash.pair(i, j, this.charge);
    this.settle(this.at.pairs + 2 * (i * this.row.n + j));
  }
  private chargeReach(i: number): void {
    this.clash.reach(i, this.charge);
    this.settle(this.at.reach + 2 * i);
  }

  private addBox(i: number, boxes: number[]): void {
    const body = this.row.now[i]!;
    const [x, y] = [this.row.x(i), this.row.y(i)];
    boxes.push(x, x + body.width, y, y + body.depth);
  }
}
