import { type Fix } from '../findings/finding';
import { at as entryAt } from '../outcome';
import type { Board } from '../rig/schema';
import type { Model, XY } from './board-model';
import type { Clash } from './board-rules';
import { BoardState } from './board-state';

/** Places are looked for in steps of this many mm, no further off than `FARTHEST_MM` along either axis. */
const STEP_MM = 10;
const FARTHEST_MM = 200;

/** All steps to other places, the nearest first; of those as far off, the ones to the right and the rear. */
const STEPS: readonly XY[] = (() => {
  const most = FARTHEST_MM / STEP_MM;
  const along = Array.from({ length: 2 * most + 1 }, (_, i) => (i - most) * STEP_MM);
  const far = ({ x, y }: XY) => Math.hypot(x, y);
  return along
    .flatMap((x) => along.map((y): XY => ({ x, y })))
    .filter((step) => step.x || step.y)
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
  private readonly before: ReadonlySet<string>;
  private readonly found = new Map<number, XY | undefined>();

  constructor(
    private readonly board: Board,
    private readonly model: Model,
    private readonly at: readonly XY[],
  ) {
    // What is wrong does not hang on the ways of leads.
    this.state = new BoardState({ ...model, runs: [] }, at);
    this.before = new Set(this.state.clashes().map(keyOf));
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
        ...{ edit: 'placeOnBoard' as const, device: item.device.id },
        at: { ...place, board: this.board.id, ...to },
      };
      return [{ words: `Move ${item.device.name} ${stepWords(from, to)}`, edits: [edit] }];
    });
  }

  /** The nearest place for an item at which nothing is wrong with it any more, and nothing else that was right. */
  private nearest(i: number): XY | undefined {
    const from = entryAt(this.at, i);
    const { turn } = entryAt(this.model.items, i);
    const stand = (to: XY) => this.state.make([{ i, ...to, turn }]);
    const isRight = (to: XY): boolean => {
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
  return [
    ...(x ? [`${Math.abs(x)} mm to the ${x < 0 ? 'left' : 'right'}`] : []),
    ...(y ? [`${Math.abs(y)} mm to the ${y < 0 ? 'rear' : 'front'}`] : []),
  ].join(' and ');
}
