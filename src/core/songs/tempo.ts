import { at } from '../outcome';
/** Note values by their length in quarter notes. */
export const DIVISIONS = {
  whole: 4,
  'dotted half': 3,
  half: 2,
  'dotted quarter': 1.5,
  'half triplet': 4 / 3,
  quarter: 1,
  'dotted eighth': 0.75,
  'quarter triplet': 2 / 3,
  eighth: 0.5,
  'eighth triplet': 1 / 3,
  sixteenth: 0.25,
  'sixteenth triplet': 1 / 6,
} as const;
export type Division = keyof typeof DIVISIONS;
export const isDivision = (text: string | undefined): text is Division =>
  text !== undefined && Object.hasOwn(DIVISIONS, text);

/** Length of a quarter note in ms: `60000 / bpm`. */
export const quarterMs = (bpm: number): number => 60_000 / bpm;

/** Length of a note value in ms at a tempo. 96 bpm, dotted eighth: 468.75. */
export const divisionMs = (bpm: number, division: Division): number =>
  quarterMs(bpm) * DIVISIONS[division];

/** Rate in Hz of a modulation whose cycle lasts a number of quarter notes: `bpm / 60 / beats`. */
export const rateHz = (bpm: number, beats: number): number => bpm / 60 / beats;

/** Between repeats of an echo and a click, about this much is heard, in ms. */
export const HEARD_MS = 20;
/** A repeat that has fallen this far below the first is not heard under a band, in dB. */
export const INAUDIBLE_DB = 40;
/** Repeats that are looked at; longer trails are held to be endless. */
const MOST_REPEATS = 400;

/**
 * How far an echo runs from the click: by which repeat more than 20 ms, and how loud that one still
 * is against the first.
 */
export interface Slip {
  errorMs: number;
  /** The first repeat that is off by more than 20 ms; nothing where none up to the end of the trail is. */
  repeat: number | null;
  /** How far that repeat lies under the first, in dB. */
  downDb: number | null;
  /** Whether it is heard: not where it has died away by then. */
  heard: boolean;
}

/**
 * Slip of an echo that is `errorMs` off: `k · e` by its kth repeat. `keeps` is the share of its
 * level that each repeat keeps (0 to 1); the kth lies `−20·log10(keeps)·(k − 1)` dB under the
 * first.
 */
export function slipOf(errorMs: number, keeps: number): Slip {
  const off = Math.abs(errorMs);
  if (off < 1e-9) return { errorMs, repeat: null, downDb: null, heard: false };
  const repeat = Math.floor(HEARD_MS / off) + 1;
  if (repeat > MOST_REPEATS) return { errorMs, repeat: null, downDb: null, heard: false };
  const downDb =
    repeat === 1 ? 0 : keeps <= 0 ? Infinity : -20 * Math.log10(Math.min(1, keeps)) * (repeat - 1);
  return { errorMs, repeat, downDb, heard: downDb < INAUDIBLE_DB };
}

/**
 * A tempo from taps: the mean interval in ms, its spread (standard deviation), and by how much the
 * mean itself may be off. Of two presses nothing is known of either: one interval has no spread.
 */
export interface Tapped {
  presses: number;
  meanMs: number;
  spreadMs: number | null;
  errorMs: number | null;
  bpm: number;
}

/**
 * Tempo of at least two presses, by their times in ms. The mean of n − 1 intervals hangs on the
 * first and last press alone: it may be off by `√2·σ / (n − 1)`, with σ the spread of one press,
 * `spread / √2`.
 */
export function tapped(times: readonly number[]): Tapped | undefined {
  if (times.length < 2) return undefined;
  const gaps = times.slice(1).map((t, i) => t - at(times, i));
  const meanMs = gaps.reduce((a, b) => a + b, 0) / gaps.length;
  const spreadMs =
    gaps.length < 2
      ? null
      : Math.sqrt(gaps.reduce((a, g) => a + (g - meanMs) ** 2, 0) / (gaps.length - 1));
  return {
    presses: times.length,
    meanMs,
    spreadMs,
    errorMs: spreadMs === null ? null : spreadMs / gaps.length,
    bpm: 60_000 / meanMs,
  };
}
