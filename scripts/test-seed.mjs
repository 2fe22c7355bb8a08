import fc from 'fast-check';

/**
 * Cases of laws are the same in each run, so that a test that fails, fails again; with
 * YANTREL_SEED=any they are others each time, to look for what nobody thought of.
 */
const { YANTREL_SEED: asked } = process.env;
if (asked !== 'any') fc.configureGlobal({ seed: Number(asked ?? 20261128) });
