import { at as entryAt } from '../outcome';
import { type Item, type Model, type Turn, TURNS, type XY } from './board-model';
import { PLUG_ROOM } from './board-rules';

/** From the deck down to the rails and up again at the other end, in mm each. */
export const DROP = 20;

/** An item in one turn, as numbers from its corner: its plugs' rooms, their tips, its jacks and switches. */
export interface Body {
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

/**
 * Where the items of a board stand, and every number that follows from it, in one row, so that whatever
 * a move has changed can be taken back.
 */
export class BoardRow {
  /** The numbers; what they are is known to whoever has taken room for them. */
  readonly s: Float64Array;
  /** The items as they lie now. */
  readonly now: Body[];
  readonly n: number;
  private readonly bodies: (Body | undefined)[];
  private readonly undoAt: number[] = [];
  private readonly undoWas: number[] = [];
  private size: number;

  /** @param room how many numbers others will take room for */
  constructor(
    readonly model: Model,
    room: number,
  ) {
    const n = (this.n = model.items.length);
    this.bodies = Array<Body | undefined>(4 * n).fill(undefined);
    this.now = model.items.map((item) => bodyOf(item));
    model.items.forEach((item, i) => {
      this.bodies[4 * i + item.turn / 90] = this.now[i];
    });
    // First x, y, turn, level and whether it stands half off one, of each item.
    this.size = 5 * n;
    this.s = new Float64Array(5 * n + room);
  }

  /** The first of so many numbers of one's own. */
  take(count: number): number {
    this.size += count;
    return this.size - count;
  }

  x = (i: number): number => this.s[i]!;
  y = (i: number): number => this.s[this.n + i]!;
  up = (i: number): number => this.s[3 * this.n + i]!;
  half = (i: number): boolean => this.s[4 * this.n + i] === 1;

  body(i: number, turn: Turn): Body {
    return (this.bodies[4 * i + turn / 90] ??= bodyOf(this.model.asTurned(i, turn)));
  }

  place(i: number): Move {
    return { i, x: this.x(i), y: this.y(i), turn: entryAt(this.now, i).item.turn };
  }

  /** The end of a plug: its x for axis 0, its y for axis 1. */
  tip(i: number, socket: number, axis: 0 | 1): number {
    return (axis ? this.y(i) : this.x(i)) + this.now[i]!.tips[2 * socket + axis]!;
  }

  stand({ i, x, y, turn }: Move): void {
    const { n } = this;
    this.put(i, x);
    this.put(n + i, y);
    this.put(2 * n + i, turn / 90);
    const body = (this.now[i] = this.body(i, turn));
    const level = standing(this.model, body.item, { x, y });
    this.put(3 * n + i, level.up);
    this.put(4 * n + i, level.half ? 1 : 0);
  }

  put(at: number, value: number): void {
    const was = this.s[at]!;
    if (was === value) return;
    this.undoAt.push(at);
    this.undoWas.push(was);
    this.s[at] = value;
  }

  /** What was put so far stays. */
  keep(): void {
    this.undoAt.length = 0;
    this.undoWas.length = 0;
  }

  /** Everything put since `keep` is as it was. */
  back(): void {
    const { n } = this;
    for (let k = this.undoAt.length - 1; k >= 0; k--) {
      const at = this.undoAt[k]!;
      this.s[at] = this.undoWas[k]!;
      if (at >= 2 * n && at < 3 * n)
        this.now[at - 2 * n] = this.body(at - 2 * n, TURNS[this.s[at]]!);
    }
    this.keep();
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
