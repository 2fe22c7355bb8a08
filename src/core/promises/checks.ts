import type { PromiseType } from '../rig/schema';
import { latencyUnder, mutedSilent, noTubeUnloaded, stereo } from './figures';
import { levelsWithin } from './levels';
import { noiseUnder } from './noise';
import type { InSound, OverAll } from './ground';
import { hears, neverHears, tunerHears } from './hearing';
import { controlMovesOnly, movesOnly } from './moves-only';
import { onePress } from './one-press';
import { survives } from './survives';
import { tailsSurvive } from './tails';

/**
 * How a promise is looked at. Sound by sound, what one sound says depends on nothing but the
 * devices, the leads and that sound; over all, on several sounds together.
 */
export type PromiseCheck<T extends PromiseType> = { inSound: InSound<T> } | { over: OverAll<T> };

/** The check of every type of promise. */
export const PROMISE_CHECKS: { [T in PromiseType]: PromiseCheck<T> } = {
  hears: { inSound: hears },
  'never-hears': { inSound: neverHears },
  'moves-only': { inSound: movesOnly },
  'control-moves-only': { inSound: controlMovesOnly },
  stereo: { inSound: stereo },
  'tuner-hears': { inSound: tunerHears },
  'muted-silent': { inSound: mutedSilent },
  'no-tube-unloaded': { inSound: noTubeUnloaded },
  'noise-under': { inSound: noiseUnder },
  'latency-under': { inSound: latencyUnder },
  'levels-within': { over: levelsWithin },
  'tails-survive': { over: tailsSurvive },
  'one-press': { over: onePress },
  survives: { over: survives },
};
