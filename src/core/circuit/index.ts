export { AIR_MS_PER_METRE, buildCircuit, isMetal, passesOf, pluggedJacks } from './build';
export * from './circuit';
export {
  type Flow,
  type Flowing,
  type Hiss,
  type PerTouch,
  type Present,
  runSignal,
  totalPeak,
  totalVolts,
  TOUCH_DB,
  TOUCHES,
  type Touch,
} from './flow';
export { orderNodes } from './order';
export { solveSection } from './passive';
export { clippedRms, clippedShape, distortion, SINE, touchWord } from './saturate';
