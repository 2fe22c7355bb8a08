import type { SoundFigures } from '../analysis';
import type { SoundContext } from '../signal';
import type { PromiseOf, PromiseType, Rig, Sound } from '../rig/schema';

/**
 * One way in which a promise is broken: in which sound, why, whom it concerns, and the route that
 * breaks it where there is one.
 */
export interface Breach {
  sound?: string;
  why: string;
  subjects: string[];
  route?: string[];
}

/** What a promise is checked against. */
export interface Ground {
  rig: Rig;
  reports: readonly SoundFigures[];
  report: (sound: string) => SoundFigures | undefined;
  sound: (id: string) => Sound | undefined;
  /** How a sound was worked out last, where that is known: a copy takes over what is the same. */
  known: (id: string) => SoundContext | undefined;
}

/** Looks at one promise in one sound. */
export type InSound<T extends PromiseType> = (
  promise: PromiseOf<T>,
  ground: Ground,
  sound: Sound,
  report: SoundFigures,
) => Breach[];

/** Looks at one promise over several sounds together. */
export type OverAll<T extends PromiseType> = (
  promise: PromiseOf<T>,
  ground: Ground,
  sounds: readonly Sound[],
) => Breach[];
