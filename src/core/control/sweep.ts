import { at as entryAt, sure } from '../outcome';
import type { Control, Rig, Sound } from '../rig/schema';
import { endWords } from '../rig/find';
import { fixed } from '../units';
import { withControlAt } from './effective';
import type { Arriving } from '../signal/destinations';
import { levelsNear } from './reach';

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
/** What is quieter than this counts as silence, in dBu. */
const SILENT_DBU = -200;
/** A dip or bump smaller than this is not named, in dB. */
const NAMED_DB = 0.5;

/**
 * Evaluates the rig at 33 positions of a control and names what the level does on the way: a dip
 * below both ends, or a bump above both. Where one side moves and the other hides it, the side is
 * told, by name.
 */
export function sweepOf(
  rig: Rig,
  sound: Sound,
  control: Control,
  positions = SWEEP_POSITIONS,
): Sweep {
  const at = Array.from({ length: positions }, (_, i) => (100 * i) / (positions - 1));
  const levels = levelsNear(rig, sound);
  const heard = at.map((x) =>
    levels(withControlAt(rig, sound, control, control.type === 'pedal' ? x : x >= 50)),
  );
  return {
    at,
    destinations: entryAt(heard, 0).map((d, i) => {
      const moved = mostMoved(heard.map((h) => entryAt(h, i)));
      const { jack } = moved;
      const name = jack === undefined ? d.name : endWords(rig, { device: d.device, jack });
      return { device: d.device, name, levels: moved.levels, ...judge(moved.levels, at) };
    }),
  };
}

/**
 * The levels of a destination while a control moves: of the whole, or of that side which moves more
 * than the whole does, since a louder one (a band's mix in the other ear) would hide it.
 */
function mostMoved(along: readonly Arriving[]): { levels: (number | null)[]; jack?: string } {
  const range = (levels: readonly (number | null)[]) => {
    const dbu = levels.map((x) => Math.max(x ?? SILENT_DBU, SILENT_DBU));
    return Math.max(...dbu) - Math.min(...dbu);
  };
  const whole = along.map((d) => d.levelDbu?.normal ?? null);
  const sides = entryAt(along, 0).sides.map(({ jack }, k) => ({
    jack,
    levels: along.map((d) => d.sides[k]?.levelDbu?.normal ?? null),
  }));
  return sides.reduce<ReturnType<typeof mostMoved>>(
    (most, side) => (range(side.levels) > range(most.levels) + NAMED_DB ? side : most),
    { levels: whole },
  );
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
