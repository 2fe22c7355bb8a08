import fc from 'fast-check';

/**
 * Cases of laws are the same in each run, so that a test that fails, fails again; with
 * YANTREL_SEED=any they are others each time, to look for what nobody thought of. With YANTREL_DEEP=1
 * each law is tried on as many cases as `testing/cases.ts` and fast-check know, by hand, when a solver
 * was changed.
 */
const { YANTREL_SEED: asked, YANTREL_DEEP: deep } = process.env;
fc.configureGlobal({
  ...(asked !== 'any' && { seed: Number(asked ?? 20261128) }),
  numRuns: deep === '1' ? 100 : 40,
});
