export {
  atEar,
  type Ear,
  type Effects,
  effectsOf,
  joinedEffects,
  Listener,
  type Tell,
} from './effects';
export { type FaultFacts, faultsOf, type SortId, SORTS, type Spare } from './faults';
export { type Candidate, type Evidence, Finder, type Found, type Noticing } from './finder/finder';
export { allOdds, type Known, NOTHING_KNOWN } from './finder/odds';
export { type Test } from './finder/tests';
export { type Drill, drillOf, type Hit, type Loss } from './drill';
export { type Rescue, rescues } from './rescue';
export { type Rewire, rewire } from './rewire';
export { type Survival, survivals } from './survival';
export { smallestSpares, type SpareItem, type SparePlan } from './spares';
export {
  CHECK_PARTS,
  type CheckPart,
  type CheckStep,
  type LineCheck,
  lineCheckOf,
} from './line-check';
export { bitOf, type SymptomId, SYMPTOM_IDS, SYMPTOMS, symptomWords } from './symptoms';
export {
  diceOf,
  DIFFICULTIES,
  type Difficulty,
  evidenceOf,
  hide,
  type Made,
  makeTest,
  type Score,
  scoreOf,
  type Trouble,
} from './trainer';
export * from './book';
export { demoBook } from './demo-book';
