export { longestRising } from './longest-rising';
export { arrangementCost, cheapestArrangement, EXACT_UP_TO, type Prices } from './arrange';
export {
  exactly,
  type Mip,
  type MipAnswer,
  type MipSolver,
  solveMip,
  type Term,
  writeLp,
} from './mip';
