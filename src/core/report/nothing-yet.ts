import type { Report } from './report';

/** The report of a rig that was not judged yet. */
export const NOTHING_YET: Report = { sounds: [], promises: [], findings: [] };
