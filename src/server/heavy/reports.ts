import type { Report } from '../../core/report';
import type { Rig } from '../../core/rig';
import { heavy } from './pool';

/** Reports of the revisions that were opened last, by their identities: a reload does not analyse again. */
const MOST = 40;
const shared = globalThis as { yantrelReports?: Map<string, Promise<Report>> };

/** The report of a revision, worked out in a thread; remembered while the revision is. */
export function reportOf(identity: string, rig: Rig): Promise<Report> {
  const kept = (shared.yantrelReports ??= new Map<string, Promise<Report>>());
  const known = kept.get(identity);
  if (known) {
    kept.delete(identity);
    kept.set(identity, known);
    return known;
  }
  const report = heavy('report', { rig });
  kept.set(identity, report);
  report.catch(() => kept.delete(identity));
  const [oldest] = kept.keys();
  if (kept.size > MOST && oldest !== undefined) kept.delete(oldest);
  return report;
}
