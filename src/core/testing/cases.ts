import fc from 'fast-check';

/** What fast-check runs of each property when all cases are asked for. */
const ALL = 100;

/**
 * How many cases a dear law is tried on: the usual number, or the many where all are asked for
 * (`YANTREL_DEEP=1 npm run unit`).
 */
export const cases = (usual: number, many: number): number =>
  (fc.readConfigureGlobal().numRuns ?? ALL) < ALL ? usual : many;
