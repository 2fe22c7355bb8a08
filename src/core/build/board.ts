import type { Model, XY } from './board-model';
import type { Clash } from './board-rules';
import { BoardState } from './board-state';
import type { Path } from './board-ways';

/**
 * Where everything stands, judged: mm of lead, how often leads cross, what is wrong, and all of it
 * as one figure (the lower the better).
 */
export interface Judged {
  mm: number;
  crossings: number;
  clashes: Clash[];
  paths: Path[];
  cost: number;
}

/** Judges places. `at` holds the rear left corner of each item, in mm. */
export function judge(model: Model, at: readonly XY[]): Judged {
  const state = new BoardState(model, at);
  const paths = state.paths();
  return {
    mm: paths.reduce((s, p) => s + p.mm, 0),
    crossings: state.crossings(),
    clashes: state.clashes(),
    paths,
    cost: state.cost,
  };
}
