import type { PromiseOf, PromiseType } from '../rig/schema';
import type { LevelsOf } from './circles';
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
 * devices, the leads and that sound; over all, on several sounds together. `levels` says at which
 * destinations it hangs on levels, which a circle may keep from being told.
 */
export type PromiseCheck<T extends PromiseType> = (
  { inSound: InSound<T> } | { over: OverAll<T> }
) & {
  levels?: (promise: PromiseOf<T>) => LevelsOf;
};

const atDestination = ({
  destination,
  by,
}: PromiseOf<'noise-under' | 'levels-within'>): LevelsOf => ({
  at: destination,
  by,
});

/** The check of every type of promise. */
export const PROMISE_CHECKS: { [T in PromiseType]: PromiseCheck<T> } = {
  hears: { inSound: hears },
  'never-hears': { inSound: neverHears },
  'moves-only': { inSound: movesOnly, levels: () => ({ at: 'all' }) },
  'control-moves-only': { inSound: controlMovesOnly, levels: () => ({ at: 'all' }) },
  stereo: { inSound: stereo },
  'tuner-hears': { inSound: tunerHears },
  'muted-silent': { inSound: mutedSilent },
  'no-tube-unloaded': { inSound: noTubeUnloaded },
  'noise-under': { inSound: noiseUnder, levels: atDestination },
  'latency-under': { inSound: latencyUnder },
  'levels-within': { over: levelsWithin, levels: atDestination },
  'tails-survive': { over: tailsSurvive },
  'one-press': { over: onePress },
  survives: { over: survives },
};
