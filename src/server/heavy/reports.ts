import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { deserialize, serialize } from 'node:v8';
import { constants, gunzip, gzip } from 'node:zlib';
import { LRUCache } from 'lru-cache';
import type { Report } from '../../core/report';
import type { Rig } from '../../core/rig';
import type { Db } from '../database';
import { heavy } from './pool';

/** Reports of the revisions that were opened last, by their identities. */
const shared = globalThis as { yantrelReports?: LRUCache<string, Promise<Report>> };

/** The build that is running: what another one worked out is not shown. */
const build = (() => {
  try {
    return readFileSync(join(process.env.YANTREL_DIST ?? '.next', 'BUILD_ID'), 'utf8').trim();
  } catch {
    return 'not built';
  }
})();

/** A revision that is opened. */
interface Opened {
  rig: Rig;
  identity: string;
}

/**
 * What a rig opens with: the report of this very revision where it is kept, else the last one that
 * was, so that nobody waits, while this one's is worked out in a thread and kept for the next who
 * opens it. The page's own worker then gives the figures as they are. Only a rig that was never
 * opened has to be waited for.
 */
export async function reportToShow(db: Db, opened: Opened): Promise<Report> {
  const known = kept().get(opened.identity);
  if (known) return known;
  const last = await lastReport(db, opened.rig.id);
  if (last?.identity === opened.identity) {
    kept().set(opened.identity, Promise.resolve(last.report));
    return last.report;
  }
  const made = workedOut(db, opened);
  if (!last) return made;
  made.catch((error: unknown) => process.stderr.write(`a report was not made: ${String(error)}\n`));
  return last.report;
}

const kept = () => (shared.yantrelReports ??= new LRUCache({ max: 40 }));

/** Works a report out in a thread and keeps it with its rig. */
function workedOut(db: Db, { rig, identity }: Opened): Promise<Report> {
  const report = heavy('report', { rig }).then(async (made) => {
    await keep(db, rig.id, identity, made);
    return made;
  });
  kept().set(identity, report);
  report.catch(() => kept().delete(identity));
  return report;
}

async function keep(db: Db, rig: string, identity: string, report: Report): Promise<void> {
  const body = await promisify(gzip)(serialize(report), { level: constants.Z_BEST_SPEED });
  const row = { identity, build, body, made_at: new Date() };
  await db
    .insertInto('report')
    .values({ rig_id: rig, ...row })
    .onConflict((c) => c.column('rig_id').doUpdateSet(row))
    .execute();
}

/** The report that is kept with a rig, where this build made it. */
export async function lastReport(
  db: Db,
  rig: string,
): Promise<{ identity: string; report: Report } | undefined> {
  const row = await db
    .selectFrom('report')
    .select(['identity', 'build', 'body'])
    .where('rig_id', '=', rig)
    .executeTakeFirst();
  if (row?.build !== build) return undefined;
  return {
    identity: row.identity,
    report: deserialize(await promisify(gunzip)(row.body)) as Report,
  };
}
