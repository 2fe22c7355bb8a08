import type { Migration } from 'kysely';
import * as rigs from './0001-rigs';
import * as gear from './0002-gear';
import * as deltas from './0003-deltas';
import * as reports from './0004-reports';
import * as findings from './0005-findings-in-list';
import * as sheets from './0006-sheets';
import * as show from './0007-show';
import * as tags from './0008-tags';
import * as photographs from './0009-photographs';
import * as scores from './0010-trainer-scores';
import * as care from './0011-care';
import * as smallWalk from './0012-small-walk';

/** Migrations by name, in the order in which they are run. */
export const MIGRATIONS: Record<string, Migration> = {
  '0001-rigs': rigs,
  '0002-gear': gear,
  '0003-deltas': deltas,
  '0004-reports': reports,
  '0005-findings-in-list': findings,
  '0006-sheets': sheets,
  '0007-show': show,
  '0008-tags': tags,
  '0009-photographs': photographs,
  '0010-trainer-scores': scores,
  '0011-care': care,
  '0012-small-walk': smallWalk,
};
