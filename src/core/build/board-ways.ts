import type { Run, XY } from './board-model';
import { type BoardRow, DROP, type Move } from './board-row';
import { LAYOUT_PRICE, TOUCHES } from './board-rules';

/** Where a run goes: its corners from plug to plug, and how long the lead is from plug to plug, in mm. */
export interface Path {
  points: XY[];
  mm: number;
  below: boolean;
}

/** A way has six corners at most. */
const CORNERS = 6;
/** Entries of a way: mm, below or not, how many corners, the corners, and the edges of all of it. */
const [MM, BELOW, COUNT, POINTS, EDGES] = [0, 1, 2, 3, 3 + 2 * CORNERS];
const WAY = EDGES + 4;

/** How many numbers the ways of so many leads take. */
export const waysRoom = (runs: number): number => WAY * runs + runs ** 2;

/** The ways of the leads on a board, and how often each crosses another. */
export class BoardWays {
  private readonly runs: number;
  /** Where the ways begin in the row, and how often two of them cross. */
  private readonly ways: number;
  private readonly crossed: number;
  private readonly scratch = new Float64Array(WAY);

  constructor(private readonly row: BoardRow) {
    this.runs = row.model.runs.length;
    this.ways = row.take(WAY * this.runs);
    this.crossed = row.take(this.runs ** 2);
  }

  /** How long the lead of a run is now, in mm. */
  mm(run: number): number {
    return this.row.s[this.ways + run * WAY + MM]!;
  }

  paths(): Path[] {
    return this.row.model.runs.map((_, k) => this.path(this.row.s, this.ways + k * WAY));
  }

  crossings(): number {
    let count = 0;
    for (let k = 0; k < this.runs ** 2; k++) count += this.row.s[this.crossed + k]!;
    return count;
  }

  private pairAt(k: number, n: number): number {
    return this.crossed + (n < k ? n * this.runs + k : k * this.runs + n);
  }

  /** How much more lead what moved takes at least: as the crow walks, against what it had and crossed. */
  gained(moves: readonly Move[]): number {
    const { runs, board } = this.row.model;
    let mm = 0;
    for (let k = 0; k < this.runs; k++) {
      const run = runs[k]!;
      if (!moves.some((m) => m.i === run.a || m.i === run.b)) continue;
      const ax = this.row.tip(run.a, run.aSocket, 0);
      const ay = this.row.tip(run.a, run.aSocket, 1);
      mm +=
        run.b < 0
          ? Math.min(Math.abs(ay), Math.abs(ax), Math.abs(board.width - ax))
          : Math.abs(ax - this.row.tip(run.b, run.bSocket, 0)) +
            Math.abs(ay - this.row.tip(run.b, run.bSocket, 1));
      mm -= this.mm(k);
      for (let n = 0; n < this.runs; n++)
        if (n !== k) mm -= LAYOUT_PRICE.crossing * this.row.s[this.pairAt(k, n)]!;
    }
    return mm;
  }

  /** Whether a lead hangs on what moved, or might go where that stood or stands. */
  isTouched(k: number, moves: readonly Move[], boxes: readonly number[]): boolean {
    const { runs, board } = this.row.model;
    const run = runs[k]!;
    for (const { i } of moves) if (run.a === i || run.b === i) return true;
    const ax = this.row.tip(run.a, run.aSocket, 0);
    const ay = this.row.tip(run.a, run.aSocket, 1);
    for (let n = 0; n < boxes.length; n += 4) {
      const [left, right, top, bottom] = [boxes[n]!, boxes[n + 1]!, boxes[n + 2]!, boxes[n + 3]!];
      if (run.b < 0) {
        if (left < ax && right > ax && top < Math.max(ay, 0)) return true;
        if (top < ay && bottom > ay && left < Math.max(board.width, ax)) return true;
        continue;
      }
      const bx = this.row.tip(run.b, run.bSocket, 0);
      const by = this.row.tip(run.b, run.bSocket, 1);
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

  /** Whether a straight piece on the deck runs into a body. */
  private isBlocked(ax: number, ay: number, bx: number, by: number): boolean {
    const [left, right] = [Math.min(ax, bx) + TOUCHES, Math.max(ax, bx) - TOUCHES];
    const [top, bottom] = [Math.min(ay, by) + TOUCHES, Math.max(ay, by) - TOUCHES];
    for (let i = 0; i < this.row.n; i++) {
      const body = this.row.now[i]!;
      const [x, y] = [this.row.x(i), this.row.y(i)];
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
    const run = this.row.model.runs[k]!;
    const { a } = run;
    const [ax, ay] = [this.row.tip(a, run.aSocket, 0), this.row.tip(a, run.aSocket, 1)];
    const { jacks } = this.row.now[a]!;
    this.begin(
      to,
      this.row.x(a) + jacks[2 * run.aSocket]!,
      this.row.y(a) + jacks[2 * run.aSocket + 1]!,
    );
    this.corner(to, ax, ay);
    if (run.b < 0) return this.wayOut(to, ax, ay);
    const { b } = run;
    const [bx, by] = [this.row.tip(b, run.bSocket, 0), this.row.tip(b, run.bSocket, 1)];
    const last = this.row.now[b]!.jacks;
    const [jx, jy] = [
      this.row.x(b) + last[2 * run.bSocket]!,
      this.row.y(b) + last[2 * run.bSocket + 1]!,
    ];
    const climb = Math.abs(this.row.up(a) - this.row.up(b));
    if (this.betweenNeighbours(to, run, jx, jy)) return;
    const across = Math.abs(ax - bx);
    if (!this.row.now[a]!.item.under && !this.row.now[b]!.item.under)
      for (let way = 0; way < 2; way++) {
        const [cx, cy] = way ? [ax, by] : [bx, ay];
        if (this.isBlocked(ax, ay, cx, cy) || this.isBlocked(cx, cy, bx, by)) continue;
        to[MM] = across + Math.abs(ay - by) + climb;
        to[BELOW] = 0;
        this.corner(to, cx, cy);
        this.corner(to, bx, by);
        return this.corner(to, jx, jy);
      }
    const { lanes } = this.row.model;
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
    const [a, b] = [this.row.now[run.a]!, this.row.now[run.b]!];
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
    const { width } = this.row.model.board;
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

  /** Lays a lead anew, and counts what it crosses; returns what that costs more than before, in mm. */
  lay(k: number): number {
    const way = this.scratch;
    this.wayInto(way, k);
    const base = this.ways + k * WAY;
    const { row } = this;
    let more = way[MM]! - row.s[base + MM]!;
    for (let e = 0; e < WAY; e++) row.put(base + e, way[e]!);
    for (let n = 0; n < this.runs; n++) {
      if (n === k) continue;
      const at = this.pairAt(k, n);
      const count = this.crossingsBetween(base, this.ways + n * WAY);
      more += (count - row.s[at]!) * LAYOUT_PRICE.crossing;
      row.put(at, count);
    }
    return more;
  }

  /** How often two leads cross: pieces that meet at right angles, on the same side of the deck. */
  private crossingsBetween(a: number, b: number): number {
    const { s } = this.row;
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
    const { s } = this.row;
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
