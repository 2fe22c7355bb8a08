export { firstNotchHertz } from './combing';
export {
  type Arriving,
  arrivingFigures,
  type DestinationFigures,
  destinationFigures,
} from './destinations';
export { type Heard, heardOf } from './heard';
export type { Hiss } from './hiss';
export { type Flowing, runSignal } from './flow';
export {
  type Flow,
  type PerTouch,
  type Present,
  totalPeak,
  totalVolts,
  TOUCH_DB,
  TOUCHES,
  type Touch,
} from './meeting';
export type { PointFigures, Touches, Width } from './point-figures';
export { clippedRms, clippedShape, distortion, SINE, touchWord } from './saturate';
export { soundContext, type SoundContext } from './sound-context';
export { pointFigures, roomAt, stationFigures, type StationFigures } from './station-figures';
