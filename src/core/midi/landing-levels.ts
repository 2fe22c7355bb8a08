import { sure, at as entryAt } from '../outcome';
import { levelsNear } from '../control/reach';
import type { Rig, Sound } from '../rig/schema';
import { blocksOf } from '../rig/find';
import { showChange } from '../units';
import type { Change } from './change';
import type { Stage } from './stage';
import { withValue } from './stand-in';

/** What is heard at each destination between two landings of a change, in dBu; silence is null. */
export interface LandingStep {
  at: number;
  device: string;
  what: string;
  levels: (number | null)[];
}

/**
 * A change as it is heard on the way: levels after each landing, and how far one rises above the
 * louder of both sounds.
 */
export interface LandingLevels {
  destinations: { device: string; name: string }[];
  before: (number | null)[];
  steps: LandingStep[];
  after: (number | null)[];
  spikeDb: number;
  words: string;
}

/** A spike smaller than this is not named, in dB. */
const NAMED_DB = 0.5;
/** Landings that are evaluated; more are rare, and the rest changes nothing that is told. */
const MOST = 24;

/**
 * Evaluates the rig after every landing of a change: whether the amplifier is there before the
 * drive is off.
 */
export function landingLevels(rig: Rig, stage: Stage, change: Change): LandingLevels {
  const from = sure(stage.scene(change.from)).sound;
  const level = levelsNear(rig, from);
  const values = (list: ReturnType<typeof level>) => list.map((d) => d.levelDbu?.normal ?? null);
  const first = level(from);
  let now: Sound = from;
  const steps: LandingStep[] = [];
  for (const l of change.landings.slice(0, MOST)) {
    const states = { ...now.states };
    if (l.effect.what === 'control') {
      const [id, setting] = l.effect.setting.split(' ') as [string, string];
      states[id] = withValue(states[id], setting, l.effect.value);
    } else if (l.effect.what === 'program') {
      for (const id of [l.device, ...blocksOf(rig, l.device).map((d) => d.id)]) {
        const state = l.effect.recalled.sound.states[id];
        if (state) states[id] = state;
        else delete states[id];
      }
    } else continue;
    now = { ...now, states };
    steps.push({ at: l.at, device: l.device, what: l.effect.what, levels: values(level(now)) });
  }
  const [before, after] = [values(first), steps.at(-1)?.levels ?? values(first)];
  let worst = { db: 0, step: -1, destination: -1 };
  steps.slice(0, -1).forEach((s, i) =>
    s.levels.forEach((x, k) => {
      const db = x === null ? -Infinity : x - Math.max(before[k] ?? -200, after[k] ?? -200);
      if (db > worst.db) worst = { db, step: i, destination: k };
    }),
  );
  const words =
    worst.db <= NAMED_DB
      ? 'Nothing gets louder on the way than before or after.'
      : `Between ${entryAt(steps, worst.step).at.toFixed(1)} ` +
        `and ${entryAt(steps, worst.step + 1).at.toFixed(1)} ms ${entryAt(first, worst.destination).name} ` +
        `is ${showChange(worst.db)} above the louder of the two sounds.`;
  return {
    destinations: first.map((d) => ({ device: d.device, name: d.name })),
    before,
    steps,
    after,
    spikeDb: Math.max(0, worst.db),
    words,
  };
}
