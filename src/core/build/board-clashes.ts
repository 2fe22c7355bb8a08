import type { BoardRow } from './board-row';
import {
  FOOT_HALF,
  LONGEST,
  OVER_KNOBS,
  RADIO_GAP,
  RAIL_HOLD,
  SWITCH_GAP,
  type Tell,
  TOUCHES,
} from './board-rules';

/** What is wrong where things stand, item by item and pair by pair; each is told once. */
export class BoardClashes {
  constructor(private readonly row: BoardRow) {}

  /** What is wrong with an item whatever stands beside it. */
  own(i: number, tell: Tell): void {
    const { board } = this.row.model;
    const a = this.row.now[i]!;
    const [x, y] = [this.row.x(i), this.row.y(i)];
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
    if (this.row.half(i)) tell('half', i, -1, 0);
    // A plate, with one opening or none, holds whatever stands on it.
    if (board.rails.length < 2) return;
    let held = 0;
    for (const r of board.rails)
      held += Math.max(0, Math.min(y + a.depth, r.y + r.depth) - Math.max(y, r.y));
    if (held < RAIL_HOLD) tell('rail', i, -1, RAIL_HOLD - held);
  }

  /** What is wrong between two items. */
  pair(i: number, j: number, tell: Tell): void {
    const a = this.row.now[i]!;
    const b = this.row.now[j]!;
    const [px, py, qx, qy] = [this.row.x(i), this.row.y(i), this.row.x(j), this.row.y(j)];
    const x = Math.min(px + a.width, qx + b.width) - Math.max(px, qx);
    const y = Math.min(py + a.depth, qy + b.depth) - Math.max(py, qy);
    if (a.item.under === b.item.under) {
      if (x > TOUCHES && y > TOUCHES) tell('overlap', i, j, Math.min(x, y));
      else if (x > -2 * LONGEST && y > -2 * LONGEST && this.row.up(i) === this.row.up(j))
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
    const a = this.row.now[i]!;
    const b = this.row.now[j]!;
    const [dx, dy] = [this.row.x(j) - this.row.x(i), this.row.y(j) - this.row.y(i)];
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
  reach(i: number, tell: Tell): void {
    const a = this.row.now[i]!;
    if (!a.item.pressed) return;
    if (a.item.under) return void tell('reach', i, -1, 0);
    const { switches } = a;
    if (a.item.turn === 180 && a.item.switches.every((s) => a.depth - s.y > OVER_KNOBS))
      return void tell('reach', i, i, 0);
    const [x, front, up] = [this.row.x(i), this.row.y(i) + a.depth - 5, this.row.up(i)];
    for (let j = 0; j < this.row.n; j++) {
      const b = this.row.now[j]!;
      if (j === i || this.row.y(j) < front || b.item.under || this.row.up(j) < up) continue;
      const left = this.row.x(j);
      for (let k = 0; k < switches.length; k += 2)
        if (x + switches[k]! + FOOT_HALF > left && x + switches[k]! - FOOT_HALF < left + b.width)
          return void tell('reach', i, j, 0);
    }
  }
}
