import type { SoundReport } from '../analysis/report';
import { promiseWords } from '../rig/promise-words';
import { sourceDevice } from '../rig/source-id';
import type { PromiseOf, PromiseType, Rig, RigPromise, Sound } from '../rig/schema';
import { hears, neverHears, tunerHears } from './hearing';
import { controlMovesOnly, movesOnly } from './moves-only';
import { onePress } from './one-press';
import {
  latencyUnder,
  levelsWithin,
  mutedSilent,
  noiseUnder,
  noTubeUnloaded,
  stereo,
} from './figures';
import { survives } from './survives';
import { tailsSurvive } from './tails';

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

/** Whether a promise is kept, in how many sounds it was looked at, and what breaks it. */
export interface PromiseResult {
  id: string;
  words: string;
  kept: boolean;
  sounds: number;
  breaches: Breach[];
}

/** What a promise is checked against. */
export interface Ground {
  rig: Rig;
  reports: readonly SoundReport[];
  report: (sound: string) => SoundReport | undefined;
  sound: (id: string) => Sound | undefined;
}

/** Looks at one promise in one sound. */
export type InSound<T extends PromiseType> = (
  promise: PromiseOf<T>,
  ground: Ground,
  sound: Sound,
  report: SoundReport,
) => Breach[];

/**
 * Promises that are looked at sound by sound; what one sound says depends on nothing but the
 * devices, the leads and that sound.
 */
const BY_SOUND: { [T in PromiseType]?: InSound<T> } = {
  hears,
  'never-hears': neverHears,
  'moves-only': movesOnly,
  'control-moves-only': controlMovesOnly,
  stereo,
  'tuner-hears': tunerHears,
  'muted-silent': mutedSilent,
  'no-tube-unloaded': noTubeUnloaded,
  'noise-under': noiseUnder,
  'latency-under': latencyUnder,
};
/** Promises about several sounds together. */
const OVER_ALL: {
  [T in PromiseType]?: (
    promise: PromiseOf<T>,
    ground: Ground,
    sounds: readonly Sound[],
  ) => Breach[];
} = {
  'levels-within': levelsWithin,
  'tails-survive': tailsSurvive,
  'one-press': onePress,
  survives,
};

const idsOf = (p: RigPromise): { devices: string[]; sounds: string[] } => {
  const { destination, source, device, destinations, from, to, sounds, solos } = p as Partial<
    Record<'destination' | 'source' | 'device' | 'from' | 'to', string>
  > &
    Partial<Record<'destinations' | 'sounds' | 'solos', string[]>>;
  return {
    devices: [destination, source && sourceDevice(source), device, ...(destinations ?? [])].filter(
      (x) => x !== undefined,
    ),
    sounds: [from, to, ...(sounds ?? []), ...(solos ?? [])].filter((x) => x !== undefined),
  };
};

/** Remembers what it found, so that an edit in one sound checks the costly promises in that sound only. */
export class PromiseChecker {
  private last?: {
    controls: Rig['controls'];
    devices: Rig['devices'];
    leads: Rig['leads'];
    sounds: Map<string, Map<Sound, Breach[]>>;
    whole: Map<string, { sounds: Rig['sounds']; breaches: Breach[] }>;
  };

  check(rig: Rig, reports: readonly SoundReport[]): PromiseResult[] {
    const promises = rig.promises ?? [];
    if (!promises.length) return [];
    if (
      this.last?.devices !== rig.devices ||
      this.last.leads !== rig.leads ||
      this.last.controls !== rig.controls
    )
      this.last = {
        controls: rig.controls,
        devices: rig.devices,
        leads: rig.leads,
        sounds: new Map(),
        whole: new Map(),
      };
    const byId = new Map(reports.map((r) => [r.sound, r]));
    const ground: Ground = {
      rig,
      reports,
      report: (id) => byId.get(id),
      sound: (id) => rig.sounds.find((s) => s.id === id),
    };
    return promises.map((p) => this.one(p, ground));
  }

  private one(p: RigPromise, ground: Ground): PromiseResult {
    const { rig } = ground;
    const words = promiseWords(rig, p);
    const ids = idsOf(p);
    const gone = [
      ...ids.devices.filter((d) => !rig.devices.some((x) => x.id === d)),
      ...ids.sounds.filter((s) => !ground.sound(s)),
    ];
    if (gone.length)
      return {
        id: p.id,
        words,
        kept: false,
        sounds: 0,
        breaches: [
          {
            why: `"${gone.join('", "')}" is no longer in this rig. Change the promise or take it back.`,
            subjects: [],
          },
        ],
      };
    const wanted = (p as { sounds?: string[] }).sounds;
    const named = wanted?.length ? wanted.map((id) => ground.sound(id)!) : rig.sounds;
    const known = this.last!;
    const key = JSON.stringify(p);
    const bySound = BY_SOUND[p.type] as InSound<PromiseType> | undefined;
    if (bySound) {
      const memory = known.sounds.get(key) ?? new Map<Sound, Breach[]>();
      known.sounds.set(key, memory);
      const breaches = named.flatMap((sound) => {
        let found = memory.get(sound);
        const report = ground.report(sound.id);
        if (!found && report) memory.set(sound, (found = bySound(p, ground, sound, report)));
        return found ?? [];
      });
      return { id: p.id, words, kept: breaches.length === 0, sounds: named.length, breaches };
    }
    let whole = known.whole.get(key);
    if (whole?.sounds !== rig.sounds) {
      const look = OVER_ALL[p.type] as (
        promise: RigPromise,
        g: Ground,
        sounds: readonly Sound[],
      ) => Breach[];
      known.whole.set(key, (whole = { sounds: rig.sounds, breaches: look(p, ground, named) }));
    }
    return {
      id: p.id,
      words,
      kept: whole.breaches.length === 0,
      sounds: named.length,
      breaches: whole.breaches,
    };
  }
}
