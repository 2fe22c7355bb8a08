import type { Rig, Sound } from '../../rig/schema';
import type { Place } from '../../rig/stands-where';

/** All sorts of faults; each is a module of its own beside this one. */
export const SORT_IDS = [
  'hand',
  'lead',
  'jack',
  'device',
  'power',
  'amplifier',
  'wireless',
  'midi',
  'program',
] as const;
export type SortId = (typeof SORT_IDS)[number];

/**
 * A rig as it is heard: with the jacks that hold a plug, whatever became of the lead, and with what
 * became of its sounds. Faults make one into another; no analysis knows of them.
 */
export interface Whole {
  rig: Rig;
  plugged: Map<string, Set<string>>;
  sound: (sound: Sound) => Sound;
}

/** What puts a fault right: what to do, how long it takes in seconds, and the spare that it needs. */
export interface Mend {
  words: string;
  seconds: number;
  spare?: Spare;
}

/** Something in a case that takes the place of what broke. */
export type Spare =
  | { is: 'lead'; type: string; metres: number; plugs?: string }
  | { is: 'device'; kind: string }
  | { is: 'part'; words: string };

/**
 * One thing that may be wrong. `perThousand` is how often it is found in a thousand shows, by the
 * trade; `dark` are devices whose lamp is out; `where` it is put right.
 */
export interface FaultFacts {
  id: string;
  sort: SortId;
  words: string;
  /** What it is at: devices and leads by id. */
  subjects: string[];
  perThousand: number;
  dark: string[];
  where: Place;
  mend: Mend;
  /** What a look at a device's knobs, switches and standby shows: the device. */
  seenAt?: string;
  /** The device whose screen shows another program than it should. */
  screenAt?: string;
  /** It comes and goes when the lead is moved. */
  moves?: string;
  /** The lead that, put aside for a good one, takes the fault with it. */
  swap?: string;
  /** Devices that are well again on another outlet. */
  otherOutlet?: string[];
}

/** A fault that can be made: the change of a whole that it is. */
export interface Fault extends FaultFacts {
  change: (whole: Whole) => Whole;
}

/** What one sort of fault can be in a rig. */
export interface Sort {
  id: SortId;
  /** What it is called in a list. */
  words: string;
  /** How often, and why, in a sentence. */
  odds: string;
  expand: (whole: Whole) => Fault[];
}

/** How much more often that fails which is moved or trodden on. */
export const WEAR: Record<Place, number> = {
  player: 2.5,
  floor: 2,
  rack: 0.5,
  amps: 1,
  house: 0.7,
};

/** Seconds to get at a thing with one hand on it. */
export const REACH_SECONDS: Record<Place, number> = {
  player: 15,
  floor: 10,
  rack: 60,
  amps: 40,
  house: 90,
};
