import { sql } from 'kysely';
import type { SmallWalk } from '../core/draw/small-walk';
import type { Severity } from '../core/findings/finding';
import type { Db } from './database';

/** A rig in the list. */
export interface RigRow {
  id: string;
  name: string;
  head: number;
  changedAt: string;
  archived: boolean;
  tags: string[];
  devices: number;
  sounds: number;
  /** Open findings by severity, as its newest revision was judged; null where that is still to come. */
  open: Record<Severity, number> | null;
  /** The walk of its first sound, small, of the same revision. */
  walk: SmallWalk | null;
  /** The next show that it is written down for, today or later. */
  next: { date: string; venue: string } | null;
}

/** All rigs, the last changed first. */
export async function listRigs(db: Db): Promise<RigRow[]> {
  const shows = await db
    .selectFrom('show')
    .distinctOn('rig_id')
    .select(['rig_id', 'venue', sql<string>`to_char(date, 'YYYY-MM-DD')`.as('date')])
    .where('gone', '=', false)
    .where('date', '>=', sql<Date>`current_date`)
    .orderBy('rig_id')
    .orderBy('date')
    .execute();
  const next = new Map(shows.map((s) => [s.rig_id, { date: s.date, venue: s.venue }]));
  const rows = await db
    .selectFrom('rig')
    .innerJoin('revision', (j) =>
      j.onRef('revision.rig_id', '=', 'rig.id').onRef('revision.number', '=', 'rig.head'),
    )
    .leftJoin('report', 'report.identity', 'revision.identity')
    .select(['rig.id', 'rig.name', 'rig.head', 'rig.changed_at', 'rig.archived_at'])
    .select(['rig.devices', 'rig.sounds', 'rig.tags', 'report.open', 'report.walk'])
    .orderBy('rig.changed_at', 'desc')
    .execute();
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    head: r.head,
    changedAt: r.changed_at.toISOString(),
    archived: r.archived_at !== null,
    tags: r.tags,
    devices: r.devices,
    sounds: r.sounds,
    open: r.open,
    walk: r.walk,
    next: next.get(r.id) ?? null,
  }));
}
