import { type Fix } from '../findings/finding';
import { at as entryAt } from '../outcome';
import type { Board } from '../rig/schema';
import type { Model, XY } from './board-model';
import { type Clash, TOUCHES } from './board-rules';
import { BoardState } from './board-state';
import { allOf } from '../units';

/** Places near by are looked for in steps of so many mm, ones further off in twice that. */
const STEP_MM = 10;
const NEAR_MM = 60;
const FARTHEST_MM = 200;

/** All steps to other places, the nearest first; of those as far off, the ones to the right and the rear. */
const STEPS: readonly XY[] = (() => {
  const most = FARTHEST_MM / STEP_MM;
  const along = Array.from({ length: 2 * most + 1 }, (_, i) => (i - most) * STEP_MM);
  const far = ({ x, y }: XY) => Math.hypot(x, y);
  const isCoarse = ({ x, y }: XY) => x % (2 * STEP_MM) === 0 && y % (2 * STEP_MM) === 0;
  return along
    .flatMap((x) => along.map((y): XY => ({ x, y })))
    .filter((step) => far(step) > 0 && (far(step) <= NEAR_MM || isCoarse(step)))
    .sort((a, b) => far(a) - far(b) || b.x - a.x || a.y - b.y);
})();

const keyOf = ({ what, a, b, jack }: Clash): string => `${what} ${a} ${b} ${jack ?? ''}`;

/**
 * Ways out of what is wrong on a board by moving one thing a little: to the nearest place at which nothing is
 * wrong with it and nothing else becomes wrong. What is pinned stays; turning things, and moving several, is
 * left to the layout.
 */
export class BoardMoves {
  private readonly state: BoardState;
  /** What is wrong on the board as it stands. */
  readonly clashes: readonly Clash[];
  private readonly before: ReadonlySet<string>;
  private readonly found = new Map<number, XY | undefined>();

  constructor(
    private readonly board: Board,
    private readonly model: Model,
    private readonly at: readonly XY[],
  ) {
    // What is wrong does not hang on the ways of leads.
    this.state = new BoardState({ ...model, runs: [] }, at);
    this.clashes = this.state.clashes();
    this.before = new Set(this.clashes.map(keyOf));
  }

  waysOut(clash: Clash): Fix[] {
    return [...new Set([clash.b, clash.a])].flatMap((i): Fix[] => {
      const item = this.model.items[i];
      const place = item?.device.at;
      if (!item || !place || item.pinned) return [];
      if (!this.found.has(i)) this.found.set(i, this.nearest(i));
      const to = this.found.get(i);
      if (!to) return [];
      const from = entryAt(this.at, i);
      const edit = {
        edit: 'placeOnBoard' as const,
        device: item.device.id,
        at: { ...place, board: this.board.id, ...to },
      };
      return [{ words: `Move ${item.device.name} ${stepWords(from, to)}`, edits: [edit] }];
    });
  }

  /** Whether a body would stand over the edge or on another: most places fall by that alone. */
  private isTaken(i: number, { x, y }: XY): boolean {
    const { items, board } = this.model;
    const { width, depth, under } = entryAt(items, i);
    if (x < 0 || y < 0 || x + width > board.width || y + depth > board.depth) return true;
    return items.some((o, j) => {
      const p = entryAt(this.at, j);
      return (
        j !== i &&
        o.under === under &&
        Math.min(x + width, p.x + o.width) - Math.max(x, p.x) > TOUCHES &&
        Math.min(y + depth, p.y + o.depth) - Math.max(y, p.y) > TOUCHES
      );
    });
  }

  /** The nearest place for an item at which nothing is wrong with it any more, and nothing else that was right. */
  private nearest(i: number): XY | undefined {
    const from = entryAt(this.at, i);
    const { turn } = entryAt(this.model.items, i);
    const stand = (to: XY) => this.state.make([{ i, ...to, turn }]);
    const isRight = (to: XY): boolean => {
      if (this.isTaken(i, to)) return false;
      stand(to);
      if (this.state.clashesOf(i).length) return false;
      const after = this.state.clashes();
      return after.every((c) => this.before.has(keyOf(c)) && c.a !== i && c.b !== i);
    };
    const to = STEPS.map((s): XY => ({ x: from.x + s.x, y: from.y + s.y })).find(isRight);
    stand(from);
    return to;
  }
}

/** How far to move something, seen by the player: `40 mm to the left and 20 mm to the front`. */
function stepWords(from: XY, to: XY): string {
  const [x, y] = [to.x - from.x, to.y - from.y];
  return allOf([
    ...(x ? [`${Math.abs(x)} mm to the ${x < 0 ? 'left' : 'right'}`] : []),
    ...(y ? [`${Math.abs(y)} mm to the ${y < 0 ? 'rear' : 'front'}`] : []),
  ]);
}
