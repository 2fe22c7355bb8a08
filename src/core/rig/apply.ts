import { applyPatches, type Draft, enablePatches, type Patch, produceWithPatches } from 'immer';
import { done, type Outcome, refused } from '../outcome';
import { textProblems } from './text';
import { type Edit, EDITS } from './edits';
import { integrityProblems } from './integrity';
import { issueWords } from './issue-words';
import type { Refusal } from './refusal';
import { type Rig, rigSchema } from './schema';
import { shapedSchema } from './shaped';
import { learnSheets } from './sheets';

enablePatches();

/** An edit that was applied: the new document, and the patches that lead there and back. */
export interface Applied {
  rig: Rig;
  patches: Patch[];
  inverse: Patch[];
}

/**
 * Applies one edit: the new document with its patches, or the reason why not. The document given is
 * never changed, and a document that would break a rule of the format is refused.
 *
 *     const r = applyEdit(rig, { edit: 'setEngaged', device: 'fuzz', sound: 'lead', engaged: true });
 *     if (r.ok) rig = r.value.rig;
 */
export function applyEdit(rig: Rig, edit: Edit): Outcome<Applied> {
  const made = unchecked(rig, edit);
  if (!made.ok || edit.edit === 'replaceRig') return made;
  const problems = stillSound(made.value.rig);
  return problems.length ? { ok: false, problems } : made;
}

/** Makes an edit, without looking whether the document that comes of it keeps the rules. */
function unchecked(rig: Rig, edit: Edit): Outcome<Applied> {
  const [unstorable] = textProblems(edit);
  if (unstorable) return refused(unstorable.what, unstorable.where);
  if (edit.edit === 'replaceRig') return replaceWhole(rig, edit.rig);
  let refusal: Refusal;
  const apply = EDITS[edit.edit].apply as (r: Draft<Rig>, e: Edit) => Refusal;
  const [next, patches, inverse] = produceWithPatches(rig, (draft) => {
    refusal = apply(draft, edit);
  });
  return refusal ? refused(refusal) : done({ rig: next, patches, inverse });
}

function replaceWhole(rig: Rig, next: Rig): Outcome<Applied> {
  learnSheets(next.sheets);
  const whole = { ...next, id: rig.id };
  return done({
    rig: whole,
    patches: [{ op: 'replace', path: [], value: whole }],
    inverse: [{ op: 'replace', path: [], value: rig }],
  });
}

function stillSound(rig: Rig) {
  if (shapedSchema.safeParse(rig).success)
    return [...learnSheets(rig.sheets), ...integrityProblems(rig)];
  return (rigSchema.safeParse(rig).error?.issues ?? [])
    .slice(0, 5)
    .map((i) => ({ where: i.path.join('.'), what: issueWords(i) }));
}

/**
 * Applies several edits as one step: all of them, or none and the first reason. What comes of all of
 * them must keep the rules; what lies between two of them is seen by nobody and is looked at only to
 * tell the reason.
 */
export function applyEdits(rig: Rig, edits: readonly Edit[]): Outcome<Applied> {
  const [only] = edits;
  if (only && edits.length === 1) return applyEdit(rig, only);
  return atOnce(rig, edits) ?? together(rig, edits, applyEdit);
}

/** All edits with one look at the end; nothing where that is not well, or one of them cannot be made so. */
function atOnce(rig: Rig, edits: readonly Edit[]): Outcome<Applied> | undefined {
  try {
    const all = together(rig, edits, unchecked);
    return all.ok && !stillSound(all.value.rig).length ? all : undefined;
  } catch {
    return undefined;
  }
}

function together(
  rig: Rig,
  edits: readonly Edit[],
  make: (rig: Rig, edit: Edit) => Outcome<Applied>,
): Outcome<Applied> {
  const patches: Patch[] = [];
  const inverse: Patch[] = [];
  for (const one of edits) {
    const result = make(rig, one);
    if (!result.ok) return result;
    rig = result.value.rig;
    patches.push(...result.value.patches);
    inverse.unshift(...result.value.inverse);
  }
  return done({ rig, patches, inverse });
}

/** Applies patches that an edit gave: the way there, or its inverse for the way back. */
export function patchRig(rig: Rig, patches: Patch[]): Rig {
  const next = applyPatches(rig, patches);
  if (next.sheets !== rig.sheets) learnSheets(next.sheets);
  return next;
}
export type { Patch };
