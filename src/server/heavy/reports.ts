import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { promisify } from 'node:util';
import { deserialize, serialize } from 'node:v8';
import { constants, gunzip, gzip } from 'node:zlib';
import QuickLRU from 'quick-lru';
import { smallWalk } from '../../core/draw/small-walk';
import { SEVERITIES, type Severity } from '../../core/findings/finding';
import { NOTHING_YET, type Report } from '../../core/report';
import type { Rig } from '../../core/rig';
import type { Db } from '../database';
import { loadRig } from '../rigs';
import { heavy } from './pool';

/** Reports of the revisions that were opened last, by their identities. */
const shared = globalThis as { yantrelReports?: QuickLRU<string, Promise<Report>> };

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

/** What a rig opens with: figures, and whether they are those of the revision that is opened. */
export interface Shown {
  report: Report;
  isCurrent: boolean;
}

/** The longest that the first opening of a rig waits for its figures, in ms. */
const PATIENCE_MS = 1000;

/**
 * What a rig opens with: the report of this very revision where it is kept, else the last one that
 * was, so that nobody waits, while this one's is worked out in a thread and kept for the next who
 * opens it. The page's own worker then gives the figures as they are, and until it has, the page
 * says that they are still to come. A rig that was never opened is waited for a moment; where all
 * threads are busy it opens without figures.
 */
export async function reportToShow(db: Db, opened: Opened): Promise<Shown> {
  const known = kept().get(opened.identity);
  const last = known ? undefined : await lastReport(db, opened.rig.id);
  if (last?.identity === opened.identity) {
    kept().set(opened.identity, Promise.resolve(last.report));
    return { report: last.report, isCurrent: true };
  }
  const made = (known ?? workedOut(db, opened)).catch((error: unknown) => {
    process.stderr.write(`a report was not made: ${String(error)}\n`);
    return undefined;
  });
  const inTime = last ? undefined : await Promise.race([made, sleep(PATIENCE_MS, undefined)]);
  return inTime
    ? { report: inTime, isCurrent: true }
    : { report: last?.report ?? NOTHING_YET, isCurrent: false };
}

/** Works out what a rig that was just stored will open with, while nobody waits for it. */
export async function beforehand(db: Db, id: string): Promise<void> {
  const saved = await loadRig(db, id);
  if (saved) await reportToShow(db, saved);
}

const kept = () => (shared.yantrelReports ??= new QuickLRU({ maxSize: 40 }));

/** Works a report out in a thread and keeps it with its rig. */
function workedOut(db: Db, { rig, identity }: Opened): Promise<Report> {
  const report = heavy('report', { rig }).then(async (made) => {
    await keep(db, rig, identity, made);
    return made;
  });
  kept().set(identity, report);
  report.catch(() => kept().delete(identity));
  return report;
}

async function keep(db: Db, rig: Rig, identity: string, report: Report): Promise<void> {
  const body = await promisify(gzip)(serialize(report), { level: constants.Z_BEST_SPEED });
  const open = JSON.stringify(countOpen(report));
  const walk = JSON.stringify(smallWalk(rig, report.sounds[0]));
  const row = { identity, build, body, open, walk, made_at: new Date() };
  await db
    .insertInto('report')
    .values({ rig_id: rig.id, ...row })
    .onConflict((c) => c.column('rig_id').doUpdateSet(row))
    .execute();
}

/** Open findings by severity. */
function countOpen({ findings }: Report): Record<Severity, number> {
  const count = (severity: Severity) =>
    findings.filter((f) => f.severity === severity && f.accepted === undefined).length;
  return Object.fromEntries(SEVERITIES.map((s) => [s, count(s)])) as Record<Severity, number>;
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
