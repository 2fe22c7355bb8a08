export { bySound, type BySound } from './by-sound';
export { gainLadder, type Rung } from './ladder';
export { type Preview, previewEdits } from './preview';
export {
  type Cured,
  cureAll,
  FixTrial,
  isSafe,
  type Outcomes,
  type Tried,
  type TriedFix,
} from './tried';
export { analyse, Analyser, analyseSound, type Report, type SoundReport } from './report';
export { countTurned, type ToMeasure, type TurnedVerdict, whatToMeasure } from './ranges';
export { settle, settled, type Settlement } from './settled';
export { type TriedJack, trySheet } from './try-sheet';
