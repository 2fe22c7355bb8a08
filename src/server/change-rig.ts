import { randomUUID } from 'node:crypto';
import { at } from '../core/outcome';
import {
  applyEdits,
  type Edit,
  type Exchanged,
  type InPlace,
  type Rig,
  substitution,
} from '../core/rig';
import type { Db } from './database';
import { loadRig, saveRig } from './rigs';

type Changed = { ok: true } | { ok: false; status: 404 | 409 | 422; why: string };

/**
 * Changes a rig as a revision of its own, as it stands by then, or as it stood when the change was
 * `tried`, by the identity of that revision; the reason where that will not do.
 */
async function changeRig(
  db: Db,
  id: string,
  words: string,
  editsFor: (rig: Rig) => Edit[],
  tried?: string,
): Promise<Changed> {
  for (let tries = 0; tries < 5; tries++) {
    const saved = await loadRig(db, id);
    if (!saved) return { ok: false, status: 404, why: 'There is no such rig any more.' };
    if (tried !== undefined && saved.identity !== tried)
      return { ok: false, status: 409, why: 'It was changed after this was tried. Try it again.' };
    const edits = editsFor(saved.rig);
    if (!edits.length) return { ok: false, status: 422, why: 'Nothing in it would change.' };
    const applied = applyEdits(saved.rig, edits);
    if (!applied.ok) return { ok: false, status: 422, why: at(applied.problems, 0).what };
    const result = await saveRig(db, {
      rig: applied.value.rig,
      words,
      base: saved.identity,
      identity: randomUUID(),
      by: null,
    });
    if (result.outcome === 'saved') return { ok: true };
  }
  return { ok: false, status: 409, why: 'Others are saving this rig just now. Try again.' };
}

/** Renames a rig. */
export const renameRig = (db: Db, id: string, name: string): Promise<Changed> =>
  changeRig(db, id, `renamed the rig to ${name}`, () => [{ edit: 'renameRig', name }]);

/** Puts something else in the place of devices of a rig, in the revision in which it was tried. */
export const substituteIn = (
  db: Db,
  id: string,
  [of, by]: readonly [Exchanged, InPlace],
  tried: string,
  words: string,
): Promise<Changed> => changeRig(db, id, words, (rig) => substitution(rig, of, by), tried);
