import { at as entryAt } from '../outcome';
import { type Model, type Turn, TURNS, type XY } from './board-model';
import { type Move } from './board-row';
import { BoardState } from './board-state';

/** A random sequence that is the same every time. */
export function dice(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A layout as a search keeps it. */
export interface Found {
  at: XY[];
  turns: Turn[];
  cost: number;
  /** Whether nothing hits and no rule is broken. */
  right: boolean;
}

/** Warmest and coldest, in mm of lead: what a worse layout may cost and still be gone on from. */
const HOTTEST = 400;
const COLDEST = 0.5;
/** What hits and broken rules weigh at the start and at the end, against how they weigh in a search. */
const LIGHTEST = 3;
const HEAVIEST = 60;

/** How often all that hangs together moves, what counts as a short lead, and how often one stays behind. */
const TOGETHER = 0.3;
const SHORT_MM = 80;
const LEFT_BEHIND = 0.15;

/**
 * Anneals a layout: things are pushed, turned, exchanged, put plug to plug or side by side with
 * others, at random; what is better is kept, and what is worse with a chance that falls as it cools.
 * While it is hot they may stand in one another, at a price that grows.
 */
export class Annealing {
  private readonly moving: BoardState;
  best: Found;

  constructor(
    model: Model,
    at: readonly XY[],
    /** The items that may move. */
    private readonly free: readonly number[],
    private readonly mayTurn: boolean,
    private readonly random: () => number,
  ) {
    this.moving = new BoardState(model, at);
    this.best = this.found();
  }

  private found(): Found {
    const { cost, isRight } = this.moving;
    return { at: this.moving.places(), turns: this.moving.turns(), cost, right: isRight };
  }

  private keepBest(): void {
    if (this.moving.cost < this.best.cost - 1e-6) this.best = this.found();
  }

  /** `steps` moves, `from` a share of the whole cooling `to` another. */
  cool(steps: number, from: number, to: number): void {
    const { moving, random } = this;
    for (let n = 0; n < steps; n++) {
      const share = from + ((to - from) * n) / steps;
      const heat = HOTTEST * (COLDEST / HOTTEST) ** share;
      const weight = LIGHTEST * (HEAVIEST / LIGHTEST) ** share;
      const before = moving.costAt(weight);
      const moves = this.moves(share);
      if (!moves.length) continue;
      // Drawn before it is judged, so that what is sure to be refused need not be.
      const limit = before - heat * Math.log(Math.max(1e-12, random()));
      if (!moving.try(moves, weight, limit)) continue;
      const after = moving.costAt(weight);
      if (after > limit) moving.back();
      else if (after < before) this.keepBest();
    }
  }

  /** Small pushes, turns and contacts of single things, as long as any of them helps. */
  polish(rounds: number): void {
    const { moving, free } = this;
    this.restart(this.best);
    for (let round = 0; round < rounds; round++) {
      let helped = false;
      for (const i of free)
        for (const move of this.pushes(i)) {
          const before = moving.cost;
          moving.make([move]);
          if (moving.cost < before - 1e-6) helped = true;
          else moving.back();
        }
      if (!helped) break;
    }
    this.keepBest();
  }

  /** Goes on from a layout that was found. */
  restart({ at, turns }: Found): void {
    const moves = at.map((p, i) => ({ i, ...p, turn: entryAt(turns, i) }));
    this.moving.make(moves);
  }

  private place = (i: number): Move => this.moving.place(i);

  /** An item as it lies now. */
  private lies(i: number) {
    return this.moving.turned(i, this.place(i).turn);
  }

  private pushes(i: number): Move[] {
    const now = this.place(i);
    const out: Move[] = [];
    for (const mm of [40, 15, 5, 2, 1])
      out.push(
        { ...now, x: now.x - mm },
        { ...now, x: now.x + mm },
        { ...now, y: now.y - mm },
        { ...now, y: now.y + mm },
      );
    return out;
  }

  private readonly any = (n: number): number => Math.floor(this.random() * n);

  /** One change, by lot: of one thing, or of all that hangs on it by short leads. */
  private moves(share: number): Move[] {
    const { random, free } = this;
    const i = entryAt(free, this.any(free.length));
    const lot = random();
    const together = random() < TOGETHER ? this.clustered(i) : [i];
    if (lot < 0.3) return this.carried(together, this.pushed(i, share));
    if (lot < 0.6) return this.plugToPlug(i, together);
    if (lot < 0.7) return this.beside(i, together);
    if (lot < 0.8) return this.exchanged(i);
    if (lot < 0.9)
      return this.mayTurn
        ? together.length > 1
          ? this.swung(together)
          : [this.turned(i)]
        : this.carried(together, this.pushed(i, share));
    if (lot < 0.95) return this.rowPushed(i, share);
    return this.carried(together, this.anywhere(i));
  }

  /** A thing and those that hang on it by short leads, some of them left behind by lot. */
  private clustered(i: number): number[] {
    const { moving, free } = this;
    const { runs } = moving.model;
    const short = SHORT_MM * this.random();
    const found = [i];
    for (const j of found)
      for (let k = 0; k < runs.length; k++) {
        const run = entryAt(runs, k);
        if (run.b < 0 || (run.a !== j && run.b !== j)) continue;
        const other = run.a === j ? run.b : run.a;
        if (!free.includes(other) || found.includes(other)) continue;
        if (moving.leadMm(k) <= short && this.random() > LEFT_BEHIND) found.push(other);
      }
    return found;
  }

  /** Several things moved as one of them is; only that one may be turned. */
  private carried(together: readonly number[], move: Move): Move[] {
    const now = this.place(move.i);
    return together.map((j) => {
      if (j === move.i) return move;
      const q = this.place(j);
      return { ...q, x: q.x + move.x - now.x, y: q.y + move.y - now.y };
    });
  }

  /** Several things turned about their middle as one. */
  private swung(together: readonly number[]): Move[] {
    const all = together.map((j) => ({ now: this.place(j), body: this.lies(j) }));
    const [left, right] = [
      Math.min(...all.map(({ now }) => now.x)),
      Math.max(...all.map(({ now, body }) => now.x + body.width)),
    ];
    const [top, bottom] = [
      Math.min(...all.map(({ now }) => now.y)),
      Math.max(...all.map(({ now, body }) => now.y + body.depth)),
    ];
    const by = entryAt(TURNS, 1 + this.any(3));
    const [cx, cy] = [(left + right) / 2, (top + bottom) / 2];
    return all.map(({ now, body }) => {
      // The middle of each, about the middle of all.
      const [dx, dy] = [now.x + body.width / 2 - cx, now.y + body.depth / 2 - cy];
      const [x, y] = by === 90 ? [-dy, dx] : by === 180 ? [-dx, -dy] : [dy, -dx];
      const turn = ((now.turn + by) % 360) as Turn;
      const then = this.moving.turned(now.i, turn);
      return {
        i: now.i,
        x: Math.round(cx + x - then.width / 2),
        y: Math.round(cy + y - then.depth / 2),
        turn,
      };
    });
  }

  private pushed(i: number, share: number): Move {
    const { board } = this.moving.model;
    const now = this.place(i);
    const far = 2 + 0.4 * board.width * (1 - share) ** 2;
    const by = () => Math.round((2 * this.random() - 1) * far);
    const lot = this.random();
    return {
      ...now,
      x: lot < 0.7 ? now.x + by() : now.x,
      y: lot > 0.3 ? now.y + by() : now.y,
    };
  }

  private anywhere(i: number): Move {
    const { board } = this.moving.model;
    const { turn } = this.place(i);
    const body = this.moving.turned(i, turn);
    const front = board.depth - body.depth;
    return {
      i,
      x: this.any(Math.max(1, board.width - body.width)),
      y: body.pressed && this.random() < 0.7 ? front : this.any(Math.max(1, front)),
      turn,
    };
  }

  private anyTurn(i: number): Turn {
    const { turn } = this.place(i);
    return this.mayTurn && this.random() < 0.3 ? entryAt(TURNS, this.any(4)) : turn;
  }

  /** Turned about its middle. */
  private turned(i: number): Move {
    const now = this.place(i);
    const was = this.moving.turned(i, now.turn);
    const turn = entryAt(TURNS, this.any(4));
    const body = this.moving.turned(i, turn);
    return {
      i,
      x: Math.round(now.x + (was.width - body.width) / 2),
      y: Math.round(now.y + (was.depth - body.depth) / 2),
      turn,
    };
  }

  /** So that one of its plugs meets the plug at the other end of its lead, or the edge where it leaves. */
  private plugToPlug(i: number, together: readonly number[]): Move[] {
    const { model } = this.moving;
    const runs = model.runs.filter((r) => r.a === i || r.b === i);
    if (!runs.length) return [];
    const run = entryAt(runs, this.any(runs.length));
    const turn = together.length > 1 ? this.place(i).turn : this.anyTurn(i);
    const body = this.moving.turned(i, turn);
    const mine = entryAt(body.sockets, run.a === i ? run.aSocket : run.bSocket);
    if (run.b < 0) {
      const now = this.place(i);
      const x = mine.nx < 0 ? -mine.tipX : mine.nx > 0 ? model.board.width - mine.tipX : now.x;
      const y = mine.ny < 0 ? -mine.tipY : now.y;
      return this.carried(together, { i, x: Math.round(x), y: Math.round(y), turn });
    }
    const [j, socket] = run.a === i ? [run.b, run.bSocket] : [run.a, run.aSocket];
    if (together.includes(j)) return [];
    const theirs = entryAt(this.lies(j).sockets, socket);
    const q = this.place(j);
    return this.carried(together, {
      i,
      x: Math.round(q.x + theirs.tipX - mine.tipX),
      y: Math.round(q.y + theirs.tipY - mine.tipY),
      turn,
    });
  }

  /** Close to one side of another thing, in line with one of its edges or as it stands. */
  private beside(i: number, together: readonly number[]): Move[] {
    const j = this.any(this.moving.model.items.length);
    if (together.includes(j)) return [];
    const turn = together.length > 1 ? this.place(i).turn : this.anyTurn(i);
    const body = this.moving.turned(i, turn);
    const other = this.lies(j);
    const q = this.place(j);
    const now = this.place(i);
    const gap = (a: typeof body, b: typeof body, x: number, y: number) =>
      Math.max(
        0,
        ...a.sockets.filter((s) => s.nx === x && s.ny === y).map((s) => s.clearance),
        ...b.sockets.filter((s) => s.nx === -x && s.ny === -y).map((s) => s.clearance),
      );
    const inLine = this.random();
    const y = inLine < 0.4 ? q.y : inLine < 0.8 ? q.y + other.depth - body.depth : now.y;
    const x = inLine < 0.4 ? q.x : inLine < 0.8 ? q.x + other.width - body.width : now.x;
    const sides = [
      { x: q.x + other.width + gap(other, body, 1, 0), y },
      { x: q.x - body.width - gap(other, body, -1, 0), y },
      { x, y: q.y + other.depth + gap(other, body, 0, 1) },
      { x, y: q.y - body.depth - gap(other, body, 0, -1) },
    ];
    const to = entryAt(sides, this.any(4));
    return this.carried(together, { i, x: Math.round(to.x), y: Math.round(to.y), turn });
  }

  /** The middles of two exchanged. */
  private exchanged(i: number): Move[] {
    const j = entryAt(this.free, this.any(this.free.length));
    const [a, b] = [this.lies(i), this.lies(j)];
    if (j === i || a.under !== b.under) return [];
    const [p, q] = [this.place(i), this.place(j)];
    const [dx, dy] = [(a.width - b.width) / 2, (a.depth - b.depth) / 2];
    return [
      { ...p, x: Math.round(q.x - dx), y: Math.round(q.y - dy) },
      { ...q, x: Math.round(p.x + dx), y: Math.round(p.y + dy) },
    ];
  }

  /** All that stands beyond a thing, to one side in its row, or everything in its row. */
  private rowPushed(i: number, share: number): Move[] {
    const me = this.place(i);
    const { depth } = this.lies(i);
    const right = this.random() < 0.5;
    const all = this.random() < 0.3;
    const by = this.pushed(i, share);
    return this.free.flatMap((j) => {
      const q = this.place(j);
      const inRow = q.y < me.y + depth / 2 && q.y + this.lies(j).depth > me.y + depth / 2;
      if (!inRow || !(all || j === i || (right ? q.x > me.x : q.x < me.x))) return [];
      return [{ ...q, x: q.x + by.x - me.x, y: q.y + (all ? by.y - me.y : 0) }];
    });
  }
}
