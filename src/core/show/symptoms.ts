import { sourceId } from '../rig/source-id';
import { distortion, type Flow, totalVolts } from '../signal';
import { dbuOfVolts, ratio } from '../units';
import { type Noise, noiseName } from './faults';

/** What reaches one destination, as far as a person can tell by listening. */
export interface Heard {
  /** Loudest at normal picking, in dBu, without noises that a fault makes; nothing where nothing plays. */
  dbu: number | null;
  /** Level of each source by itself, in dBu. */
  sources: ReadonlyMap<string, number | null>;
  /** Level of each jack, in dBu. */
  sides: (number | null)[];
  /** Levels of the noises that a fault makes, in dBu. */
  noises: { [N in Noise]: number | null };
  latencyMs: number | null;
  /** How much louder 5 kHz arrives than 1 kHz, in dB. */
  tiltDb: number;
  thdPercent: number;
  wetPercent: number;
  /** What is told apart by ear: devices that made it wet, wide or bent. */
  made: string;
}

/** How two ways of hearing differ. Each is told by ear; the thresholds are what a person notices. */
interface Symptom {
  /** What a tech would say. */
  words: string;
  /** What it means, where the word alone does not say. */
  means: string;
  noticed: (meant: Heard, now: Heard) => boolean;
}

/** Softer than this against what is meant, in dB, is silence beside a band. */
const GONE_DB = 40;
/** A change of level that is noticed at once, in dB. */
const WEAKER_DB = 5;
/** A noise is noticed when it is within so many dB of the music. */
const NOISE_DB: { [N in Noise]: number } = { hum: 50, crackle: 50, hiss: 40 };
/** What of a source is heard beside the loudest: within so many dB. */
const BESIDE_DB = 30;
const THIN_DB = 4;
const LATE_MS = 8;
const WET_PERCENT = 12;
/** A factor of distortion that is heard as another sound, where it is over a percent. */
const BENT = 2;

const gone = (meant: number | null, now: number | null): boolean =>
  meant !== null && (now === null || now < meant - GONE_DB);
const noisy = (noise: Noise) => (meant: Heard, now: Heard) => {
  const level = now.noises[noise];
  return level !== null && meant.dbu !== null && level > meant.dbu - NOISE_DB[noise];
};
const isHeard = (meant: Heard, now: Heard): boolean =>
  meant.dbu !== null && now.dbu !== null && !gone(meant.dbu, now.dbu);
const one = (meant: Heard, now: Heard): boolean =>
  meant.sides.length > 1 &&
  isHeard(meant, now) &&
  meant.sides.some((m, i) => gone(m, now.sides[i] ?? null)) &&
  meant.sides.some((m, i) => m !== null && !gone(m, now.sides[i] ?? null));
const bent = (meant: Heard, now: Heard): boolean => {
  const [a, b] = [Math.max(meant.thdPercent, 1), Math.max(now.thdPercent, 1)];
  return Math.max(a / b, b / a) > BENT;
};
const otherEffect = (meant: Heard, now: Heard): boolean =>
  isHeard(meant, now) &&
  (meant.made !== now.made ||
    Math.abs(meant.wetPercent - now.wetPercent) > WET_PERCENT ||
    bent(meant, now));

/** Everything that can be noticed, in the order in which it is offered. */
export const SYMPTOMS = {
  silent: {
    words: 'silent',
    means: 'nothing of an instrument where it should be heard',
    noticed: (meant, now) =>
      [...meant.sources].some(
        ([source, dbu]) =>
          dbu !== null &&
          dbu > (meant.dbu ?? 0) - BESIDE_DB &&
          gone(dbu, now.sources.get(source) ?? null),
      ),
  },
  weaker: {
    words: 'weaker',
    means: `softer by ${WEAKER_DB} dB or more`,
    noticed: (meant, now) => isHeard(meant, now) && (now.dbu ?? 0) < (meant.dbu ?? 0) - WEAKER_DB,
  },
  louder: {
    words: 'louder',
    means: `louder by ${WEAKER_DB} dB or more, or heard where it should not be`,
    noticed: (meant, now) =>
      now.dbu !== null && (meant.dbu === null ? true : now.dbu > meant.dbu + WEAKER_DB),
  },
  side: { words: 'one side only', means: 'one of two sides is gone', noticed: one },
  hum: { words: 'hum', means: '50 or 60 Hz, or buzz', noticed: noisy('hum') },
  crackle: {
    words: 'crackle',
    means: 'comes and goes, clicks when something moves',
    noticed: noisy('crackle'),
  },
  hiss: { words: 'hiss', means: 'more noise than at rehearsal', noticed: noisy('hiss') },
  thin: {
    words: 'thin or dull',
    means: `treble and bass stand otherwise, by ${THIN_DB} dB or more`,
    noticed: (meant, now) => isHeard(meant, now) && Math.abs(now.tiltDb - meant.tiltDb) > THIN_DB,
  },
  effect: {
    words: 'wrong effect',
    means:
      'another effect, more or less of it, cleaner or dirtier; also what stays on, or does not change',
    noticed: otherEffect,
  },
  late: {
    words: 'late',
    means: `${LATE_MS} ms later or earlier`,
    noticed: (meant, now) =>
      isHeard(meant, now) && Math.abs((now.latencyMs ?? 0) - (meant.latencyMs ?? 0)) > LATE_MS,
  },
} as const satisfies Record<string, Symptom>;
export type SymptomId = keyof typeof SYMPTOMS;
export const SYMPTOM_IDS = Object.keys(SYMPTOMS) as SymptomId[];

/** What is noticed, as bits in the order of `SYMPTOM_IDS`; 0 is "all fine". */
export const noticed = (meant: Heard, now: Heard): number =>
  SYMPTOM_IDS.reduce(
    (bits, id, i) => (SYMPTOMS[id].noticed(meant, now) ? bits | (1 << i) : bits),
    0,
  );

export const bitOf = (id: SymptomId): number => 1 << SYMPTOM_IDS.indexOf(id);
/** What is noticed, in words. */
export const symptomWords = (bits: number): string =>
  bits === 0
    ? 'all fine'
    : SYMPTOM_IDS.filter((id) => bits & bitOf(id))
        .map((id) => SYMPTOMS[id].words)
        .join(', ');

const isNoiseOf = (f: Flow, noise: Noise): boolean =>
  f.source.endsWith(sourceId('', noiseName(noise)));
const isMusic = (f: Flow): boolean => !f.source.includes(sourceId('', 'fault '));
const dbuOf = (flows: readonly Flow[]): number | null => {
  const volts = totalVolts(flows, 1);
  return volts > FAINT_VOLTS ? dbuOfVolts(volts) : null;
};
/** Under this there is nothing to hear, in V. */
const FAINT_VOLTS = 1e-6;

/** What a person tells of what is present at the jacks of one destination. */
export function heardOf(jacks: readonly (readonly Flow[])[]): Heard {
  const all = jacks.flat();
  const music = all.filter(isMusic);
  const sides = jacks.map((flows) => dbuOf(flows.filter(isMusic)));
  const loudest = music.reduce<Flow | undefined>(
    (a, b) => (!a || b.volts[1] > a.volts[1] ? b : a),
    undefined,
  );
  const level = (noise: Noise) => dbuOf(all.filter((f) => isNoiseOf(f, noise)));
  const near = music.filter((f) => f.volts[1] * ratio(BESIDE_DB) > (loudest?.volts[1] ?? 0));
  const power = music.reduce((s, f) => s + f.volts[1] ** 2, 0);
  const wet = music.reduce((s, f) => s + (f.wet ? f.volts[1] ** 2 : 0), 0);
  const levels = sides.filter((d) => d !== null);
  return {
    dbu: levels.length ? Math.max(...levels) : null,
    sources: new Map(
      [...new Set(music.map((f) => f.source))].map((source) => [
        source,
        dbuOf(music.filter((f) => f.source === source)),
      ]),
    ),
    sides: jacks.length > 1 ? sides : [],
    noises: { hum: level('hum'), crackle: level('crackle'), hiss: level('hiss') },
    latencyMs: loudest?.latencyMs ?? null,
    tiltDb: loudest?.tiltDb ?? 0,
    thdPercent: loudest ? 100 * distortion(loudest.shapes[1]) : 0,
    wetPercent: power > 0 ? (100 * wet) / power : 0,
    made: [...new Set(near.flatMap((f) => [f.wet ?? '', f.bentBy ?? '', sideOf(f)]))].sort().join(),
  };
}

const sideOf = (f: Flow): string => (f.widenedBy ? `${f.side} of ${f.widenedBy}` : '');

/** What somebody answers who is asked how it sounds: one word, the worst of what is noticed. */
export const ROUGHLY = [
  'all fine',
  'silent',
  'silent, but for noise',
  'one side only',
  'hum',
  'crackle',
  'hiss',
  'weaker',
  'louder',
  'sounds otherwise',
] as const;
export type Roughly = (typeof ROUGHLY)[number];

/** The one word for what is noticed. */
export function roughly(bits: number): Roughly {
  const has = (id: SymptomId) => (bits & bitOf(id)) !== 0;
  if (has('silent')) return has('hum') || has('crackle') ? 'silent, but for noise' : 'silent';
  if (has('side')) return 'one side only';
  for (const id of ['crackle', 'hum', 'hiss', 'weaker', 'louder'] as const) if (has(id)) return id;
  return bits === 0 ? 'all fine' : 'sounds otherwise';
}
