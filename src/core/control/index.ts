export { allControls, STEPS, stepsOf } from './all-controls';
export {
  effectiveRig,
  effectiveSound,
  endsOfAssignment,
  valueAt,
  holdsIn,
  withControlAt,
} from './effective';
export { endsOf, heardIn, levelsNear, type Reached, reachOf, reachOfControl } from './reach';
export { sameWayRemarks } from './same-way';
export { type Sweep, SWEEP_POSITIONS, sweepOf } from './sweep';
export { controlWiringRemarks } from './wiring-remarks';
