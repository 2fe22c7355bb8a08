export { LEAD_DASH, LEAD_NAMES, LEAD_TAGS } from './lead-marks';
export {
  type PlacedLead,
  type PlacedStation,
  placeWalk,
  SIZE,
  type WalkGeometry,
  type Way,
} from './walk-geometry';
export {
  foldableHosts,
  type WalkChoice,
  type WalkStation,
  type WalkView,
  walkView,
} from './walk-view';
export {
  placeWiring,
  type WiringBox,
  type WiringGeometry,
  type WiringWay,
} from './wiring-geometry';
export { type MidiMap, midiMap } from './midi-map';
export { type Place, PLACE_NAMES, placeOf, PLACES } from '../rig/stands-where';
