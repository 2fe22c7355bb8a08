import type { Db } from './database';

/**
 * Two shows on one date, of two rigs that use the same unit: `mine` and `other`, with the uses `a` and
 * `b` and the other's rig, `there`. Shows that were taken out, and rigs that were put away, clash with
 * nothing.
 */
export const unitClashes = (db: Db) =>
  db
    .selectFrom('show as mine')
    .innerJoin('show as other', (j) =>
      j.onRef('other.date', '=', 'mine.date').onRef('other.rig_id', '!=', 'mine.rig_id'),
    )
    .innerJoin('gear_use as a', 'a.rig_id', 'mine.rig_id')
    .innerJoin('gear_use as b', (j) =>
      j.onRef('b.rig_id', '=', 'other.rig_id').onRef('b.serial', '=', 'a.serial'),
    )
    .innerJoin('rig as there', 'there.id', 'other.rig_id')
    .where('mine.gone', '=', false)
    .where('other.gone', '=', false)
    .where('there.archived_at', 'is', null);
