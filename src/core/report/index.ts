export { bySound, type BySound } from './by-sound';
export { gainLadder, type Rung } from './ladder';
export { type Preview, previewEdits } from './preview';
export { NOTHING_YET } from './nothing-yet';
export { isSafe, type Outcomes, type Tried, type TriedFix } from './outcomes';
export { type Cured, cureAll, FixTrial } from './tried';
export {
  analyse,
  Analyser,
  analyseSound,
  type First,
  type Report,
  type SoundReport,
} from './report';
export { whatToMeasure } from './ranges';
export { ALONE, isIn, type Share } from './share';
export { countTurned, mostTurned, type ToMeasure, type TurnedVerdict } from './turned';
export { settle, settled, type Settlement } from './settled';
export { type TriedJack, trySheet } from './try-sheet';
