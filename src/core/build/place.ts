import { at as entryAt } from '../outcome';
import { type Model, type XY } from './board-model';
import { type Clash, HITS } from './board-rules';
import { BoardState } from './board-state';

/** Within this many mm an edge is caught; else things stand on a grid of this many mm. */
const CATCH_MM = 8;
const GRID_MM = 5;

/**
 * Where an item comes to stand when it is let go near a place: its edges caught by the edges of
 * others, of the board, of rails and raised strips.
 */
export function snapped(model: Model, i: number, at: readonly XY[], to: XY): XY {
  const item = entryAt(model.items, i);
  const { board } = model;
  const xs = [0, board.width - item.width];
  const ys = [
    0,
    board.depth - item.depth,
    ...board.rails.map((r) => r.y),
    ...(board.raised ?? []).flatMap((r) => [r.y, r.y + r.depth - item.depth, r.y + r.depth]),
  ];
  model.items.forEach((o, j) => {
    if (j === i || o.under !== item.under) return;
    const p = entryAt(at, j);
    xs.push(p.x, p.x + o.width - item.width);
    ys.push(p.y, p.y + o.depth - item.depth);
  });
  const near = (list: readonly number[], v: number) => {
    const best = list.reduce((a, b) => (Math.abs(b - v) < Math.abs(a - v) ? b : a), Infinity);
    return Math.abs(best - v) <= CATCH_MM ? best : Math.round(v / GRID_MM) * GRID_MM;
  };
  return { x: Math.round(near(xs, to.x)), y: Math.round(near(ys, to.y)) };
}

/**
 * The first place where an item hits nothing, from the front right, where signal comes in; nothing
 * where there is none.
 */
export function freePlace(model: Model, i: number, at: readonly XY[]): XY | undefined {
  const item = entryAt(model.items, i);
  const { board } = model;
  const state = new BoardState({ ...model, runs: [] }, at);
  const isWrong = (p: XY, rules: readonly Clash['what'][]) => {
    state.make([{ i, ...p, turn: item.turn }]);
    return state.clashesOf(i).some((c) => HITS.has(c.what) || rules.includes(c.what));
  };
  // Where there is none that keeps to rails and outline, one that hits nothing.
  for (const rules of [['half', 'edge', 'rail'], ['half']] as const)
    for (let y = board.depth - item.depth; y >= 0; y -= 2 * GRID_MM)
      for (let x = board.width - item.width; x >= 0; x -= 2 * GRID_MM)
        if (!isWrong({ x, y }, rules)) return { x, y };
  return undefined;
}
