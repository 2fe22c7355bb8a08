import type { Report } from './report';

/** The report of a rig that was not judged yet. The page takes it from here: the folder brings the engine. */
export const NOTHING_YET: Report = { sounds: [], promises: [], findings: [] };
