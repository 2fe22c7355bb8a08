import * as z from 'zod';
import { rigEdits } from './rig-edits';
import { deviceEdits } from './device-edits';
import { leadEdits } from './lead-edits';
import { stateEdits } from './state-edits';
import { sheetEdits } from './sheet-edits';
import { soundEdits } from './sound-edits';
import { promiseEdits } from './promise-edits';
import { controlEdits } from './control-edits';
import { songEdits } from './song-edits';
import { makingEdits } from './making-edits';
import { boardEdits } from './board-edits';
import { editSay, type EditSay } from './define';
import type { Rig } from '../schema';

/**
 * Every change to a rig, whole: what it carries, what it does, what the history says. One more is
 * its entry in one of these files. Edits carry the ids of what they make, so that applying one
 * twice gives the same document. `sound` left out means the device's own setting, which holds in
 * every sound that does not say otherwise.
 */
export const EDITS = {
  ...rigEdits,
  ...deviceEdits,
  ...leadEdits,
  ...stateEdits,
  ...soundEdits,
  ...promiseEdits,
  ...controlEdits,
  ...songEdits,
  ...makingEdits,
  ...boardEdits,
  ...sheetEdits,
};

export type EditName = keyof typeof EDITS;
export type EditOf<N extends EditName> = z.infer<(typeof EDITS)[N]['schema']>;
export type Edit = { [N in EditName]: EditOf<N> }[EditName];

type EditSchema = (typeof EDITS)[EditName]['schema'];

/** Reads an edit that comes from outside. */
export const editSchema = z.discriminatedUnion(
  'edit',
  Object.values(EDITS).map((e): EditSchema => e.schema) as [EditSchema, ...EditSchema[]],
) as z.ZodType<Edit>;

/** What an edit does, in a few words, told of the rig before it: "moved Wah before Amber Drive". */
export function editWords(rig: Rig, edit: Edit): string {
  const words = EDITS[edit.edit].words as (e: Edit, say: EditSay) => string;
  return words(edit, editSay(rig));
}
