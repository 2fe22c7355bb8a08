export { allControls, STEPS, stepsOf } from './all-controls';
export {
  CURVE_SHARE,
  effectiveRig,
  effectiveSound,
  endsOfAssignment,
  valueAt,
  withControlAt,
} from './effective';
export { type Press, type Presses, pressesBetween } from './presses';
export { endsOf, heardIn, type Reached, reachOf, reachOfControl } from './reach';
export { type Sequence, sequenceOf } from './sequence';
export { type Sweep, SWEEP_POSITIONS, sweepOf } from './sweep';
