/**
 * What changes a rig, checks one, and joins what two people changed: fetched when somebody is about
 * to ({@link fetchWorking}), since a page that is only read needs none of it.
 */
export { clashWords } from '../../core/changes';
export { next } from '../../core/keep';
export { applyEdits, checkRig, editWords, readClip, redo, undo } from '../../core/rig';
