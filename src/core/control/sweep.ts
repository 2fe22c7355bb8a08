import { at as entryAt, sure } from '../outcome';
import type { Control, Rig, Sound } from '../rig/schema';
import { fixed } from '../units';
import { withControlAt } from './effective';
import { heardIn } from './reach';

/**
 * Level at each destination while a control goes from end to end. `at` is in percent from the heel;
 * silence is null.
 */
export interface Sweep {
  at: number[];
  destinations: {
    device: string;
    name: string;
    levels: (number | null)[];
    verdict: string;
    dipDb: number;
    bumpDb: number;
  }[];
}

/** Positions that are evaluated, ends included. */
export const SWEEP_POSITIONS = 33;
/** A dip or bump smaller than this is not named, in dB. */
const NAMED_DB = 0.5;

/**
 * Evaluates the rig at 33 positions of a control and names what the level does on the way: a dip
 * below both ends, or a bump above both.
 */
export function sweepOf(
  rig: Rig,
  sound: Sound,
  control: Control,
  positions = SWEEP_POSITIONS,
): Sweep {
  const at = Array.from({ length: positions }, (_, i) => (100 * i) / (positions - 1));
  const heard = at.map((x) =>
    heardIn(rig, withControlAt(rig, sound, control, control.type === 'pedal' ? x : x >= 50)),
  );
  return {
    at,
    destinations: entryAt(heard, 0).map((d, i) => {
      const levels = heard.map((h) => entryAt(h, i).levelDbu?.normal ?? null);
      return { device: d.device, name: d.name, levels, ...judge(levels, at) };
    }),
  };
}

/** What a curve of levels does between its ends. */
function judge(
  levels: readonly (number | null)[],
  at: readonly number[],
): { verdict: string; dipDb: number; bumpDb: number } {
  const value = (x: number | null) => x ?? -200;
  const [first, last] = [value(entryAt(levels, 0)), value(sure(levels.at(-1)))];
  const inner = levels.slice(1, -1).map(value);
  const [low, high] = [Math.min(...inner), Math.max(...inner)];
  const dipDb = Math.max(0, Math.min(first, last) - low);
  const bumpDb = Math.max(0, high - Math.max(first, last));
  const where = (x: number) => `${Math.round(entryAt(at, 1 + inner.indexOf(x)))} %`;
  if (levels.every((x) => x === null))
    return { verdict: 'silent all the way', dipDb: 0, bumpDb: 0 };
  if (dipDb > NAMED_DB)
    return {
      verdict:
        low <= -200
          ? `silent at ${where(low)}, between two ends that sound`
          : `dips ${fixed(dipDb, 2)} dB at ${where(low)}`,
      dipDb,
      bumpDb,
    };
  if (bumpDb > NAMED_DB)
    return { verdict: `bump of ${fixed(bumpDb, 2)} dB at ${where(high)}`, dipDb, bumpDb };
  if (Math.max(first, last, high) - Math.min(first, last, low) <= NAMED_DB)
    return { verdict: 'stays level', dipDb, bumpDb };
  return { verdict: first < last ? 'rises' : 'falls', dipDb, bumpDb };
}
