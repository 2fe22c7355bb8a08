export { borrow, type Borrowed, type Wanted } from './borrow';
export { isEngaged, resolveState, settingOf, stateIn } from './device-state';
export { type Applied, applyEdit, applyEdits, type Patch, patchRig } from './apply';
export { joinsOf } from './conductors';
export { type Edit, type EditName, type EditOf, EDITS, editSchema, editWords } from './edits';
export * from './find';
export { type Clip, clipOf, cutLeads, fittedTo, readClip } from './clip';
export { freshId, freeName } from './fresh-id';
export type { LockerSheet, LockerUnit, Photograph } from './locker';
export {
  type Exchanged,
  exchangedDevices,
  type InPlace,
  substitution,
  unitInPlace,
} from './substitution';
export { type Gone, type History, onTop, record, redo, startHistory, undo } from './history';
export { integrityProblems } from './integrity';
export { type Choose, type Clash, type Merged, mergeRigs, type Side } from './merge';
export { sameJson } from './same-json';
export { hostLoopOf, innerReturn, innerSend, isFreeLoop, waysOf } from './loop-edits';
export { promiseWords } from './promise-words';
export { type Outcome, type Problem, problemLines } from '../outcome';
export { checkRig, readRig, writeRig } from './read';
export * from './schema';
export { sourceDevice, sourceId } from './source-id';
export { settingWords } from './words';
export { issueWords } from './issue-words';
export { cutText, isStorable, textProblems } from './text';
export {
  freeJacks,
  type Joint,
  joiningLead,
  jointsOf,
  leadsOfJoint,
  placeOf,
  usualMetres,
} from './joining';
export { loopAround, loopState, loopWords } from './loop-holding';
export * from './sheets';
