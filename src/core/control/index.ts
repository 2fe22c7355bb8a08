export { type Press, type Presses, pressesBetween } from './presses';
export { endsOf, type Reached, reachOf } from './reach';
