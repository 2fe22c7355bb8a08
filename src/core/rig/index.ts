export { borrow, type Borrowed, type Wanted } from './borrow';
export { isEngaged, resolveState, settingOf, stateIn } from './device-state';
export { type Applied, applyEdit, applyEdits, type Patch, patchRig } from './apply';
export { joinsOf } from './conductors';
export { type Edit, type EditName, type EditOf, EDITS, editSchema, editWords } from './edits';
export * from './find';
export { clipOf, cutLeads, fittedTo } from './clip';
export { type Clip, readClip } from './read-clip';
export { freshId, freeName } from './fresh-id';
export type { LockerSheet, LockerUnit, Photograph } from './locker';
export {
  type Exchanged,
  exchangedDevices,
  type InPlace,
  substitution,
  unitInPlace,
} from './substitution';
export { type Gone, redo, undo } from './back-and-forth';
export { type History, onTop, record, startHistory } from './history';
export { integrityProblems } from './integrity';
export { type Choose, type Clash, type Merged, mergeRigs, type Side } from './merge';
export { sameJson } from './same-json';
export { hostLoopOf, innerReturn, innerSend, isFreeLoop, waysOf } from './loop-edits';
export { promiseWords } from './promise-words';
export { type Outcome, type Problem, problemLines } from '../outcome';
export { checkRig, readRig } from './read';
export { writeRig } from './write';
export * from './choices';
export * from './schema';
export { DEFAULT_PF_PER_METRE, DEFAULT_REFERENCE } from './typical-leads';
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
