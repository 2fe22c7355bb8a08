import { at as entryAt } from '../outcome';
import { type Item, type Model, type Run, type Turn, TURNS, type XY } from './board-model';
import { PLUG_CLEARANCE, PLUG_WIDTH } from './footprint';

/**
 * Distances in mm: between switch centres, from wireless and supplies to high gain, what counts as
 * in front of a switch to each side.
 */
export const SWITCH_GAP = 60;
export const RADIO_GAP = 100;
const FOOT_HALF = 40;
/** So much of an item in mm must lie on rails to be held. */
export const RAIL_HOLD = 15;
/** Turned about, with its switch further than this from the foot's side, a device is reached over its knobs. */
const OVER_KNOBS = 60;
/** Half the width of a plug. */
export const PLUG_ROOM = PLUG_WIDTH / 2;
const LONGEST = Math.max(...Object.values(PLUG_CLEARANCE));
/** From the deck down to the rails and up again at the other end, in mm each. */
export const DROP = 20;
/** Less than this in mm is no overlap. */
const TOUCHES = 0.5;

/** What is wrong with a place: which item, with which other one (−1 for the board), and by how many mm. */
export interface Clash {
  what:
    | 'overlap'
    | 'outside'
    | 'edge'
    | 'plug'
    | 'plugs'
    | 'too-high'
    | 'half'
    | 'rail'
    | 'reach'
    | 'switches'
    | 'radio';
  a: number;
  b: number;
  mm: number;
  jack?: string;
}

/**
 * What one of each costs, in mm of lead. Bodies or plugs that hit something outweigh every rule, and a
 * rule outweighs any lead; the rest is a judgement, told in docs/formulas.md.
 */
export const LAYOUT_PRICE = {
  hit: 100_000,
  rule: 5000,
  millimetre: 10,
  crossing: 30,
  turned: 2,
  foot: 0.05,
  heavy: 0.05,
};

/** What cannot be built so. */
export const HITS: ReadonlySet<Clash['what']> = new Set<Clash['what']>([
  'overlap',
  'outside',
  'plug',
  'plugs',
  'too-high',
]);

/** What a hit and a broken rule weigh while a search is still hot, in mm of lead. */
const HOT_HIT = 150;
const HOT_RULE = 200;

type Tell = (what: Clash['what'], a: number, b: number, mm: number, jack?: string) => void;

/** Where a run goes: its corners from plug to plug, and how long the lead is from plug to plug, in mm. */
export interface Path {
  points: XY[];
  mm: number;
  below: boolean;
}

/** An item in one turn, as numbers from its corner: its plugs' rooms, their tips, its jacks and switches. */
interface Body {
  item: Item;
  width: number;
  depth: number;
  /** Left, right, top, bottom of the room of each plug. */
  rooms: Float64Array;
  tips: Float64Array;
  jacks: Float64Array;
  switches: Float64Array;
}

function bodyOf(item: Item): Body {
  const { sockets, switches } = item;
  return {
    item,
    width: item.width,
    depth: item.depth,
    rooms: Float64Array.from(
      sockets.flatMap((s) => [
        Math.min(s.x, s.tipX) - (s.nx ? 0 : PLUG_ROOM),
        Math.max(s.x, s.tipX) + (s.nx ? 0 : PLUG_ROOM),
        Math.min(s.y, s.tipY) - (s.ny ? 0 : PLUG_ROOM),
        Math.max(s.y, s.tipY) + (s.ny ? 0 : PLUG_ROOM),
      ]),
    ),
    tips: Float64Array.from(sockets.flatMap((s) => [s.tipX, s.tipY])),
    jacks: Float64Array.from(sockets.flatMap((s) => [s.x, s.y])),
    switches: Float64Array.from(switches.flatMap((s) => [s.x, s.y])),
  };
}

/** One item, where it is to stand and how it is turned. */
export interface Move {
  i: number;
  x: number;
  y: number;
  turn: Turn;
}

/** A way has six corners at most. */
const CORNERS = 6;
/** Entries of a way: mm, below or not, how many corners, the corners, and the edges of all of it. */
const [MM, BELOW, COUNT, POINTS, EDGES] = [0, 1, 2, 3, 3 + 2 * CORNERS];
const WAY = EDGES + 4;

/**
 * Items on a board, with all that follows from where they stand: what is wrong, the ways of the
 * leads, how often they cross, what it costs. Everything lies in one row of numbers, so that a move
 * works out again only what it touches, and can be taken back.
 */
export class BoardState {
  private readonly bodies: (Body | undefined)[];
  private readonly now: Body[];
  private readonly s: Float64Array;
  private readonly n: number;
  private readonly runs: number;
  /** Where each kind of entry begins. */
  private readonly at: Record<
    'x' | 'y' | 'turn' | 'up' | 'half' | 'soft' | 'own' | 'reach' | 'pairs' | 'ways' | 'crossed',
    number
  >;
  /** Price of what is wrong as it is judged, and as a hot search feels it. */
  private full = 0;
  private hot = 0;
  /** mm of lead, crossings, and the pull of foot and weight. */
  private lead = 0;
  private readonly undoAt: number[] = [];
  private readonly undoWas: number[] = [];
  private before = { full: 0, hot: 0, lead: 0 };
  private readonly pressed: number[];
  private readonly scratch = new Float64Array(WAY);

  constructor(
    readonly model: Model,
    places: readonly XY[],
  ) {
    const { items } = model;
    const n = (this.n = items.length);
    this.runs = model.runs.length;
    this.bodies = Array<Body | undefined>(4 * n).fill(undefined);
    let size = 0;
    const room = (count: number) => (size += count) - count;
    this.at = {
      x: room(n),
      y: room(n),
      turn: room(n),
      up: room(n),
      half: room(n),
      soft: room(n),
      own: room(2 * n),
      reach: room(2 * n),
      pairs: room(2 * n * n),
      ways: room(WAY * this.runs),
      crossed: room(this.runs ** 2),
    };
    this.s = new Float64Array(size);
    this.pressed = items.flatMap((item, i) => (item.pressed ? [i] : []));
    this.now = items.map((item) => bodyOf(item));
    items.forEach((item, i) => {
      this.bodies[4 * i + item.turn / 90] = this.now[i];
      const p = entryAt(places, i);
      this.stand(i, p.x, p.y, item.turn);
    });
    for (let i = 0; i < n; i++) {
      this.chargeOwn(i);
      for (let j = i + 1; j < n; j++) this.chargePair(i, j);
      this.chargeReach(i);
    }
    for (let k = 0; k < this.runs; k++) this.layWay(k);
    this.undoAt.length = 0;
    this.undoWas.length = 0;
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
    return { i, x: this.x(i), y: this.y(i), turn: entryAt(this.now, i).item.turn };
  }

  places(): XY[] {
    return this.now.map((_, i) => ({ x: this.x(i), y: this.y(i) }));
  }

  turns(): Turn[] {
    return this.now.map((b) => b.item.turn);
  }

  /** How long the lead of a run is now, in mm. */
  leadMm(run: number): number {
    return this.s[this.at.ways + run * WAY + MM]!;
  }

  /** An item as it lies when it is turned. */
  turned(i: number, turn: Turn): Item {
    return this.body(i, turn).item;
  }

  /** Everything that is wrong. */
  clashes(): Clash[] {
    const out: Clash[] = [];
    const tell: Tell = (what, a, b, mm, jack) =>
      out.push({ what, a, b, mm, ...(jack !== undefined && { jack }) });
    for (let i = 0; i < this.n; i++) {
      this.ownClashes(i, tell);
      for (let j = i + 1; j < this.n; j++) this.pairClashes(i, j, tell);
      this.reachClash(i, tell);
    }
    return out;
  }

  /** What is wrong with one item, by itself or with another, but for who reaches it. */
  clashesOf(i: number): Clash[] {
    const out: Clash[] = [];
    const tell: Tell = (what, a, b, mm) => out.push({ what, a, b, mm });
    this.ownClashes(i, tell);
    for (let j = 0; j < this.n; j++)
      if (j !== i) this.pairClashes(Math.min(i, j), Math.max(i, j), tell);
    return out;
  }

  /** The ways of all leads. */
  paths(): Path[] {
    return this.model.runs.map((_, k) => this.path(this.s, this.at.ways + k * WAY));
  }

  crossings(): number {
    let count = 0;
    for (let k = 0; k < this.runs ** 2; k++) count += this.s[this.at.crossed + k]!;
    return count;
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
    this.undoAt.length = 0;
    this.undoWas.length = 0;
    this.before = { full: this.full, hot: this.hot, lead: this.lead };
    const touched: number[] = [];
    for (const { i, x, y, turn } of moves) {
      this.addBox(i, touched);
      this.stand(i, x, y, turn);
      this.addBox(i, touched);
    }
    for (const { i } of moves) {
      this.chargeOwn(i);
      for (let j = 0; j < i; j++) this.chargePair(j, i);
      for (let j = i + 1; j < this.n; j++) this.chargePair(i, j);
    }
    for (const i of this.pressed) this.chargeReach(i);
    if (this.costAt(weight) + this.leadGained(moves) > limit) {
      this.back();
      return false;
    }
    for (let k = 0; k < this.runs; k++) if (this.isTouched(k, moves, touched)) this.layWay(k);
    return true;
  }

  /** How much more lead what moved takes at least: as the crow walks, against what it had and crossed. */
  private leadGained(moves: readonly Move[]): number {
    const { runs, board } = this.model;
    let mm = 0;
    for (let k = 0; k < this.runs; k++) {
      const run = runs[k]!;
      if (!moves.some((m) => m.i === run.a || m.i === run.b)) continue;
      const ax = this.tip(run.a, run.aSocket, 0);
      const ay = this.tip(run.a, run.aSocket, 1);
      mm +=
        run.b < 0
          ? Math.min(Math.abs(ay), Math.abs(ax), Math.abs(board.width - ax))
          : Math.abs(ax - this.tip(run.b, run.bSocket, 0)) +
            Math.abs(ay - this.tip(run.b, run.bSocket, 1));
      mm -= this.s[this.at.ways + k * WAY + MM]!;
      const { s } = this;
      for (let n = 0; n < this.runs; n++)
        if (n !== k)
          mm -=
            LAYOUT_PRICE.crossing *
            s[this.at.crossed + (n < k ? n * this.runs + k : k * this.runs + n)]!;
    }
    return mm;
  }

  back(): void {
    for (let k = this.undoAt.length - 1; k >= 0; k--) {
      const at = this.undoAt[k]!;
      this.s[at] = this.undoWas[k]!;
      if (at >= this.at.turn && at < this.at.turn + this.n) {
        const i = at - this.at.turn;
        this.now[i] = this.body(i, TURNS[this.s[at]]!);
      }
    }
    this.undoAt.length = 0;
    this.undoWas.length = 0;
    this.full = this.before.full;
    this.hot = this.before.hot;
    this.lead = this.before.lead;
  }

  private x = (i: number): number => this.s[this.at.x + i]!;
  private y = (i: number): number => this.s[this.at.y + i]!;

  private body(i: number, turn: Turn): Body {
    return (this.bodies[4 * i + turn / 90] ??= bodyOf(this.model.asTurned(i, turn)));
  }

  private put(at: number, value: number): void {
    const was = this.s[at]!;
    if (was === value) return;
    this.undoAt.push(at);
    this.undoWas.push(was);
    this.s[at] = value;
  }

  /** Stands an item somewhere: its level, and the pull on it of foot and weight. */
  private stand(i: number, x: number, y: number, turn: Turn): void {
    const { at } = this;
    this.put(at.x + i, x);
    this.put(at.y + i, y);
    this.put(at.turn + i, turn / 90);
    const body = (this.now[i] = this.body(i, turn));
    const level = standing(this.model, body.item, { x, y });
    this.put(at.up + i, level.up);
    this.put(at.half + i, level.half ? 1 : 0);
    const { board } = this.model;
    const { pressed, grams } = body.item;
    const middle = x + body.width / 2;
    const foot = board.width * (board.foot === 'left' ? 0.35 : 0.65);
    const toFoot = Math.abs(middle - foot) + (board.depth - y - body.depth);
    const soft =
      pressed * LAYOUT_PRICE.foot * toFoot +
      (grams / 1000) * LAYOUT_PRICE.heavy * Math.abs(middle - board.width / 2) +
      (turn ? LAYOUT_PRICE.turned : 0);
    this.lead += soft - this.s[at.soft + i]!;
    this.put(at.soft + i, soft);
  }

  // What is wrong costs as it is told, into two entries: as judged, and as a hot search feels it.
  private chargedFull = 0;
  private chargedHot = 0;
  private readonly charge: Tell = (what, _a, _b, mm) => {
    const hit = HITS.has(what);
    this.chargedFull += (hit ? LAYOUT_PRICE.hit : LAYOUT_PRICE.rule) + LAYOUT_PRICE.millimetre * mm;
    this.chargedHot += (hit ? HOT_HIT : HOT_RULE) + LAYOUT_PRICE.millimetre * mm;
  };

  private settle(at: number): void {
    this.full += this.chargedFull - this.s[at]!;
    this.hot += this.chargedHot - this.s[at + 1]!;
    this.put(at, this.chargedFull);
    this.put(at + 1, this.chargedHot);
    this.chargedFull = 0;
    this.chargedHot = 0;
  }

  private chargeOwn(i: number): void {
    this.ownClashes(i, this.charge);
    this.settle(this.at.own + 2 * i);
  }
  private chargePair(i: number, j: number): void {
    this.pairClashes(i, j, this.charge);
    this.settle(this.at.pairs + 2 * (i * this.n + j));
  }
  private chargeReach(i: number): void {
    this.reachClash(i, this.charge);
    this.settle(this.at.reach + 2 * i);
  }

  /** What is wrong with an item whatever stands beside it. */
  private ownClashes(i: number, tell: Tell): void {
    const { board } = this.model;
    const a = this.now[i]!;
    const [x, y] = [this.x(i), this.y(i)];
    const over = Math.max(-x, -y, x + a.width - board.width, y + a.depth - board.depth);
    if (over > TOUCHES) tell('outside', i, -1, over);
    // What stands over the edge itself has its plugs there, too.
    let edge = over > TOUCHES ? Infinity : TOUCHES;
    let socket = -1;
    const { rooms } = a;
    for (let k = 0; k < rooms.length; k += 4) {
      const out = Math.max(
        -x - rooms[k]!,
        x + rooms[k + 1]! - board.width,
        -y - rooms[k + 2]!,
        y + rooms[k + 3]! - board.depth,
      );
      if (out > edge) [edge, socket] = [out, k / 4];
    }
    if (socket >= 0) tell('edge', i, -1, edge, a.item.sockets[socket]!.jack);
    if (a.item.under) {
      const room = board.under ?? 0;
      if (a.item.height > room) tell('too-high', i, -1, a.item.height - room);
      return;
    }
    if (this.s[this.at.half + i]) tell('half', i, -1, 0);
    // A plate, with one opening or none, holds whatever stands on it.
    if (board.rails.length < 2) return;
    let held = 0;
    for (const r of board.rails)
      held += Math.max(0, Math.min(y + a.depth, r.y + r.depth) - Math.max(y, r.y));
    if (held < RAIL_HOLD) tell('rail', i, -1, RAIL_HOLD - held);
  }

  /** What is wrong between two items. */
  private pairClashes(i: number, j: number, tell: Tell): void {
    const a = this.now[i]!;
    const b = this.now[j]!;
    const [px, py, qx, qy] = [this.x(i), this.y(i), this.x(j), this.y(j)];
    const x = Math.min(px + a.width, qx + b.width) - Math.max(px, qx);
    const y = Math.min(py + a.depth, qy + b.depth) - Math.max(py, qy);
    if (a.item.under === b.item.under) {
      if (x > TOUCHES && y > TOUCHES) tell('overlap', i, j, Math.min(x, y));
      else if (
        x > -2 * LONGEST &&
        y > -2 * LONGEST &&
        this.s[this.at.up + i] === this.s[this.at.up + j]
      )
        this.plugClash(i, j, tell);
    }
    if ((a.item.radiates && b.item.sensitive) || (b.item.radiates && a.item.sensitive)) {
      const gap = Math.hypot(Math.max(0, -x), Math.max(0, -y));
      if (gap < RADIO_GAP)
        tell('radio', a.item.radiates ? i : j, a.item.radiates ? j : i, RADIO_GAP - gap);
    }
    if (a.item.pressed && b.item.pressed) {
      let near = Infinity;
      const [s, t] = [a.switches, b.switches];
      for (let k = 0; k < s.length; k += 2)
        for (let m = 0; m < t.length; m += 2)
          near = Math.min(
            near,
            Math.hypot(px + s[k]! - qx - t[m]!, py + s[k + 1]! - qy - t[m + 1]!),
          );
      if (near < SWITCH_GAP - TOUCHES) tell('switches', i, j, SWITCH_GAP - near);
    }
  }

  /**
   * Whether plugs of one item hit the body of another, or its plugs: one for a pair, the worst, for
   * what cures it cures the others.
   */
  private plugClash(i: number, j: number, tell: Tell): void {
    const a = this.now[i]!;
    const b = this.now[j]!;
    const [dx, dy] = [this.x(j) - this.x(i), this.y(j) - this.y(i)];
    let worst = TOUCHES;
    let socket = -1;
    let by = a;
    for (const [one, other, x, y] of [
      [a, b, dx, dy],
      [b, a, -dx, -dy],
    ] as const) {
      const { rooms } = one;
      for (let k = 0; k < rooms.length; k += 4) {
        const wide = Math.min(rooms[k + 1]!, x + other.width) - Math.max(rooms[k]!, x);
        if (wide <= worst) continue;
        const mm = Math.min(
          wide,
          Math.min(rooms[k + 3]!, y + other.depth) - Math.max(rooms[k + 2]!, y),
        );
        if (mm > worst) [worst, socket, by] = [mm, k / 4, one];
      }
    }
    if (socket >= 0) {
      const jack = by.item.sockets[socket]!.jack;
      tell('plug', by === a ? i : j, by === a ? j : i, worst, jack);
      return;
    }
    const [ra, rb] = [a.rooms, b.rooms];
    for (let k = 0; k < ra.length; k += 4)
      for (let m = 0; m < rb.length; m += 4) {
        const wide = Math.min(ra[k + 1]!, dx + rb[m + 1]!) - Math.max(ra[k]!, dx + rb[m]!);
        if (wide <= worst) continue;
        const mm = Math.min(
          wide,
          Math.min(ra[k + 3]!, dy + rb[m + 3]!) - Math.max(ra[k + 2]!, dy + rb[m + 2]!),
        );
        if (mm > worst) [worst, socket] = [mm, k / 4];
      }
    if (socket >= 0) tell('plugs', i, j, worst, a.item.sockets[socket]!.jack);
  }

  /** Whether a foot gets at an item that is stepped on: in the front row, or raised above what is there. */
  private reachClash(i: number, tell: Tell): void {
    const a = this.now[i]!;
    if (!a.item.pressed) return;
    if (a.item.under) return void tell('reach', i, -1, 0);
    const { switches } = a;
    if (a.item.turn === 180 && a.item.switches.every((s) => a.depth - s.y > OVER_KNOBS))
      return void tell('reach', i, i, 0);
    const [x, front, up] = [this.x(i), this.y(i) + a.depth - 5, this.s[this.at.up + i]!];
    for (let j = 0; j < this.n; j++) {
      const b = this.now[j]!;
      if (j === i || this.y(j) < front || b.item.under || this.s[this.at.up + j]! < up) continue;
      const left = this.x(j);
      for (let k = 0; k < switches.length; k += 2)
        if (x + switches[k]! + FOOT_HALF > left && x + switches[k]! - FOOT_HALF < left + b.width)
          return void tell('reach', i, j, 0);
    }
  }

  private addBox(i: number, boxes: number[]): void {
    const body = this.now[i]!;
    const [x, y] = [this.x(i), this.y(i)];
    boxes.push(x, x + body.width, y, y + body.depth);
  }

  /** Whether a lead hangs on what moved, or might go where that stood or stands. */
  private isTouched(k: number, moves: readonly Move[], boxes: readonly number[]): boolean {
    const { runs, board } = this.model;
    const run = runs[k]!;
    for (const { i } of moves) if (run.a === i || run.b === i) return true;
    const ax = this.tip(run.a, run.aSocket, 0);
    const ay = this.tip(run.a, run.aSocket, 1);
    for (let n = 0; n < boxes.length; n += 4) {
      const [left, right, top, bottom] = [boxes[n]!, boxes[n + 1]!, boxes[n + 2]!, boxes[n + 3]!];
      if (run.b < 0) {
        if (left < ax && right > ax && top < Math.max(ay, 0)) return true;
        if (top < ay && bottom > ay && left < Math.max(board.width, ax)) return true;
        continue;
      }
      const bx = this.tip(run.b, run.bSocket, 0);
      const by = this.tip(run.b, run.bSocket, 1);
      if (
        left < Math.max(ax, bx) &&
        right > Math.min(ax, bx) &&
        top < Math.max(ay, by) &&
        bottom > Math.min(ay, by)
      )
        return true;
    }
    return false;
  }

  /** The end of a plug: its x for axis 0, its y for axis 1. */
  private tip(i: number, socket: number, axis: 0 | 1): number {
    return (axis ? this.y(i) : this.x(i)) + this.now[i]!.tips[2 * socket + axis]!;
  }

  /** Whether a straight piece on the deck runs into a body. */
  private isBlocked(ax: number, ay: number, bx: number, by: number): boolean {
    const [left, right] = [Math.min(ax, bx) + TOUCHES, Math.max(ax, bx) - TOUCHES];
    const [top, bottom] = [Math.min(ay, by) + TOUCHES, Math.max(ay, by) - TOUCHES];
    for (let i = 0; i < this.n; i++) {
      const body = this.now[i]!;
      const [x, y] = [this.x(i), this.y(i)];
      if (
        right > x &&
        left < x + body.width &&
        bottom > y &&
        top < y + body.depth &&
        !body.item.under
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
  private wayInto(to: Float64Array, k: number): void {
    const run = this.model.runs[k]!;
    const { a } = run;
    const [ax, ay] = [this.tip(a, run.aSocket, 0), this.tip(a, run.aSocket, 1)];
    const { jacks } = this.now[a]!;
    this.begin(to, this.x(a) + jacks[2 * run.aSocket]!, this.y(a) + jacks[2 * run.aSocket + 1]!);
    this.corner(to, ax, ay);
    if (run.b < 0) return this.wayOut(to, ax, ay);
    const { b } = run;
    const [bx, by] = [this.tip(b, run.bSocket, 0), this.tip(b, run.bSocket, 1)];
    const last = this.now[b]!.jacks;
    const [jx, jy] = [this.x(b) + last[2 * run.bSocket]!, this.y(b) + last[2 * run.bSocket + 1]!];
    const climb = Math.abs(this.s[this.at.up + a]! - this.s[this.at.up + b]!);
    if (this.betweenNeighbours(to, run, jx, jy)) return;
    const across = Math.abs(ax - bx);
    if (!this.now[a]!.item.under && !this.now[b]!.item.under)
      for (let way = 0; way < 2; way++) {
        const [cx, cy] = way ? [ax, by] : [bx, ay];
        if (this.isBlocked(ax, ay, cx, cy) || this.isBlocked(cx, cy, bx, by)) continue;
        to[MM] = across + Math.abs(ay - by) + climb;
        to[BELOW] = 0;
        this.corner(to, cx, cy);
        this.corner(to, bx, by);
        return this.corner(to, jx, jy);
      }
    const { lanes } = this.model;
    let lane = lanes[0]!;
    let best = Infinity;
    for (const l of lanes) {
      const mm = Math.abs(ay - l) + Math.abs(by - l);
      if (mm < best - 1e-9) [lane, best] = [l, mm];
    }
    to[MM] = best + across + 2 * DROP + climb;
    to[BELOW] = 1;
    this.corner(to, ax, lane);
    this.corner(to, bx, lane);
    this.corner(to, bx, by);
    this.corner(to, jx, jy);
  }

  /**
   * Between jacks that face each other so closely that their plugs fill the gap there is nothing to go
   * around: the lead is as long as the plugs stand beside each other, and as the jacks are out of line.
   * Says whether it is so.
   */
  private betweenNeighbours(to: Float64Array, run: Run, jx: number, jy: number): boolean {
    const [a, b] = [this.now[run.a]!, this.now[run.b]!];
    const [s, t] = [a.item.sockets[run.aSocket]!, b.item.sockets[run.bSocket]!];
    if (s.nx !== -t.nx || s.ny !== -t.ny || a.item.under !== b.item.under) return false;
    const [x, y] = [to[POINTS]!, to[POINTS + 1]!];
    const gap = (jx - x) * s.nx + (jy - y) * s.ny;
    const plugs = s.clearance + t.clearance;
    const aside = Math.abs((jx - x) * s.ny) + Math.abs((jy - y) * s.nx);
    if (gap <= 0 || gap >= plugs || aside > plugs) return false;
    to[MM] = aside + Math.max(gap, plugs - gap);
    to[BELOW] = 0;
    this.begin(to, x, y);
    const [mx, my] = [x + (s.nx * gap) / 2, y + (s.ny * gap) / 2];
    this.corner(to, mx, my);
    this.corner(to, s.nx ? mx : jx, s.nx ? jy : my);
    this.corner(to, jx, jy);
    return true;
  }

  /** From a plug to the nearest edge that is free; where none is, below to the nearest. */
  private wayOut(to: Float64Array, ax: number, ay: number): void {
    const { width } = this.model.board;
    let [free, any] = [-1, -1];
    let [least, leastAny] = [Infinity, Infinity];
    for (let edge = 0; edge < 3; edge++) {
      const [x, y] = edge === 0 ? [ax, 0] : [edge === 1 ? 0 : width, ay];
      const mm = Math.abs(x - ax) + Math.abs(y - ay);
      if (mm < leastAny) [any, leastAny] = [edge, mm];
      if (mm < least && !this.isBlocked(ax, ay, x, y)) [free, least] = [edge, mm];
    }
    const edge = free < 0 ? any : free;
    to[MM] = free < 0 ? leastAny + DROP : least;
    to[BELOW] = free < 0 ? 1 : 0;
    this.corner(to, edge === 0 ? ax : edge === 1 ? 0 : width, edge === 0 ? 0 : ay);
  }

  private begin(to: Float64Array, x: number, y: number): void {
    to[COUNT] = 1;
    to[POINTS] = to[EDGES] = to[EDGES + 1] = x;
    to[POINTS + 1] = to[EDGES + 2] = to[EDGES + 3] = y;
  }

  private corner(to: Float64Array, x: number, y: number): void {
    const at = POINTS + 2 * to[COUNT]!++;
    to[at] = x;
    to[at + 1] = y;
    if (x < to[EDGES]!) to[EDGES] = x;
    if (x > to[EDGES + 1]!) to[EDGES + 1] = x;
    if (y < to[EDGES + 2]!) to[EDGES + 2] = y;
    if (y > to[EDGES + 3]!) to[EDGES + 3] = y;
  }

  private path(from: Float64Array, base: number): Path {
    return {
      points: Array.from({ length: from[base + COUNT]! }, (_, k) => ({
        x: from[base + POINTS + 2 * k]!,
        y: from[base + POINTS + 2 * k + 1]!,
      })),
      mm: from[base + MM]!,
      below: from[base + BELOW] === 1,
    };
  }

  /** Lays a lead anew, and counts what it crosses. */
  private layWay(k: number): void {
    const way = this.scratch;
    this.wayInto(way, k);
    const base = this.at.ways + k * WAY;
    const { s } = this;
    this.lead += way[MM]! - s[base + MM]!;
    for (let e = 0; e < WAY; e++) if (way[e] !== s[base + e]) this.put(base + e, way[e]!);
    for (let n = 0; n < this.runs; n++) {
      if (n === k) continue;
      const other = this.at.ways + n * WAY;
      const at = this.at.crossed + (n < k ? n * this.runs + k : k * this.runs + n);
      const count = this.crossingsBetween(base, other);
      if (count === s[at]) continue;
      this.lead += (count - s[at]!) * LAYOUT_PRICE.crossing;
      this.put(at, count);
    }
  }

  /** How often two leads cross: pieces that meet at right angles, on the same side of the deck. */
  private crossingsBetween(a: number, b: number): number {
    const { s } = this;
    if (
      s[a + BELOW] !== s[b + BELOW] ||
      s[a + EDGES]! > s[b + EDGES + 1]! ||
      s[b + EDGES]! > s[a + EDGES + 1]! ||
      s[a + EDGES + 2]! > s[b + EDGES + 3]! ||
      s[b + EDGES + 2]! > s[a + EDGES + 3]!
    )
      return 0;
    return this.upOverFlat(a, b) + this.upOverFlat(b, a);
  }

  /** How often a lying piece of one way meets a standing piece of another. */
  private upOverFlat(lying: number, upright: number): number {
    const { s } = this;
    let count = 0;
    const [ends, others] = [2 * s[lying + COUNT]!, 2 * s[upright + COUNT]!];
    for (let k = lying + POINTS + 2; k < lying + POINTS + ends; k += 2) {
      const y = s[k + 1]!;
      if (s[k - 1] !== y || s[k - 2] === s[k]) continue;
      const [left, right] = [Math.min(s[k - 2]!, s[k]!), Math.max(s[k - 2]!, s[k]!)];
      for (let n = upright + POINTS + 2; n < upright + POINTS + others; n += 2) {
        const x = s[n]!;
        if (s[n - 2] !== x || x <= left || x >= right) continue;
        const [p, q] = [s[n - 1]!, s[n + 1]!];
        if (Math.min(p, q) < y && Math.max(p, q) > y) count++;
      }
    }
    return count;
  }
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
