export { controllerNeeds, type Needs } from './controller-choice';
export { judge, type Judged, ranked } from './judge-candidate';
export { type Pad, pageChanges, pagesFor } from './pads';
export {
  type DelayTime,
  delayTimes,
  tablesOf,
  divisionTable,
  knobFor,
  soundsIn,
  tempoDevices,
  withStoredTime,
} from './delays';
export { fitLabel, fitLabels } from './labels';
export {
  type Called,
  COUNT_IN_BARS,
  type Due,
  dueChanges,
  type Hit,
  ON_TIME_BEATS,
  type Score,
  scorePractice,
} from './practice';
export {
  type Cue,
  cueSheet,
  engagedIn,
  displayLabels,
  numberSongs,
  numberSounds,
  programDevices,
  programMap,
  type ProgramRow,
  soundUse,
} from './program-map';
export {
  CHANGEOVER_SECONDS,
  clockAfter,
  runningOrder,
  type RunningOrder,
  type SetLine,
} from './running-order';
export { allScenes, type Scene, sceneOf, sectionScene } from '../control/scene';
export { standInsFor, type Substitute, substitutesFor } from './substitute';
export {
  type Division,
  DIVISIONS,
  divisionMs,
  HEARD_MS,
  INAUDIBLE_DB,
  isDivision,
  quarterMs,
  rateHz,
  type Slip,
  slipOf,
  tapped,
  type Tapped,
} from './tempo';
export {
  clockTime,
  COMMON_TIME,
  meterWords,
  temposOf,
  type Timeline,
  timelineOf,
} from './timeline';
export { songRemarks } from './song-remarks';
