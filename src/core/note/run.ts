import type { Circuit, CircuitStage } from '../circuit/circuit';
import { byKey, reachable } from '../graph';
import type { Played, Stage } from '../kinds';
import { at as entryAt } from '../outcome';
import { sourceId } from '../rig/source-id';
import { visits } from '../signal/flow';
import { TOUCH_DB } from '../signal/meeting';
import { dbuOfVolts, ratio, voltsOfDbu } from '../units';
import { together } from './noise-lines';
import { LOW_E, pluck } from './pluck';
import { sectionResponses, stageResponse } from './responses';
import {
  boundOf,
  delayed,
  filtered,
  peakOf,
  rmsOf,
  samplesOf,
  scaledBy,
  type Spectrum,
  spectrumOf,
  sumOf,
} from './spectrum';

/** Three of something: at soft, normal and hard picking. */
type PerTouch<T> = [T, T, T];
/** Works out what is wanted of each touch. */
type Touches = <T>(of: (touch: 0 | 1 | 2) => T) => PerTouch<T>;

const allTouches: Touches = (of) => [of(0), of(1), of(2)];
/** Normal picking alone, which then stands for the others: a third of the work. */
const normalTouch: Touches = (of) => {
  const normal = of(1);
  return [normal, normal, normal];
};

/**
 * What of one source's note is at a net and belongs together as one wave. `unrelated` names what has
 * made it another wave than the source's (an echo, a modulation, another pitch, a side).
 */
export interface Part {
  source: string;
  hertz: number;
  unrelated: string;
  waves: PerTouch<Spectrum>;
}

/** What a stage adds to the note that no gain could, in dB under what leaves it; null for nothing. */
export interface Added {
  device: string;
  stage: string;
  db: PerTouch<number | null>;
}

/** The note at every net of a circuit, and what each stage added. */
export interface NoteFlow {
  at: (net: number) => readonly Part[];
  added: Added[];
}

/** What the sources play: the note of a source at 1 V RMS. */
export type Play = (played: Played) => Spectrum;

/**
 * Plays a note as {@link runNote} does, at normal picking alone: nothing is known of soft and hard. With
 * `wanted`, at those nets alone: what does not lead to them is not played.
 */
export const runNormalNote = (circuit: Circuit, wanted?: readonly number[]): NoteFlow =>
  run(circuit, pluck, normalTouch, wanted);

/**
 * Plays one note of every source through a circuit. Gates stand open, compressors have settled, and
 * noise is left out: it is the note alone (see the levels for the rest). Where stages close a
 * circle, the step that leads back is left out.
 */
export const runNote = (circuit: Circuit, play: Play = pluck): NoteFlow =>
  run(circuit, play, allTouches);

function run(
  circuit: Circuit,
  play: Play,
  perTouch: Touches,
  wanted?: readonly number[],
): NoteFlow {
  // The idea is that of the levels: sections are visited in an order in which each comes after what
  // feeds it, the section's solution says what of its drivers is at each net, and a stage makes of
  // what is at its input what it drives the next section with. Here a signal is one period of a wave,
  // kept as its harmonics: a section multiplies them, a ceiling bends the samples. Waves of one
  // source that meet are added as waves, with their phases; those that an effect has made unrelated
  // stay apart, and their powers add in the figures.
  const { order, isBack, sectionOfNet } = visits(circuit);
  const leadsOn = wanted && sectionsBefore(circuit, wanted);
  const atNet: Part[][] = circuit.nets.map(() => []);
  const added: Added[] = [];
  for (const index of order) {
    if (leadsOn && !leadsOn.has(index)) continue;
    const section = circuit.sections[index]!;
    const driven = section.drivers.map((d) => {
      const parts: Part[] = [];
      const s = d.source;
      if (s && s.nominalDbu > -Infinity) {
        const played = s.played ?? LOW_E;
        const note = play(played);
        parts.push({
          source: sourceId(d.device, s.name),
          hertz: played.hertz,
          unrelated: '',
          waves: perTouch((t) =>
            scaledBy(note, voltsOfDbu(s.nominalDbu + (s.touch ? TOUCH_DB[t] : 0))),
          ),
        });
      }
      for (const stage of d.stages) {
        if (isBack(sectionOfNet(stage.from), index)) continue;
        const out = throughStage(stage, atNet[stage.from]!, perTouch);
        parts.push(...out.parts);
        if (out.added) added.push(out.added);
      }
      return joined(parts, perTouch);
    });
    if (driven.every((parts) => parts.length === 0)) continue;
    const over = sectionResponses(circuit, section);
    section.nets.forEach((net, n) => {
      atNet[net] = joined(
        driven.flatMap((parts, k) =>
          parts.map((p): Part => {
            const h = over(p.hertz, k, n);
            return { ...p, waves: perTouch((t) => filtered(p.waves[t], h)) };
          }),
        ),
        perTouch,
      );
    });
  }
  return { at: (net) => atNet[net] ?? [], added };
}

/** The sections from which signal comes to some nets, theirs among them. */
function sectionsBefore(circuit: Circuit, nets: readonly number[]): ReadonlySet<number> {
  const sectionOf = (net: number) => entryAt(circuit.nets, net).section;
  return reachable([...new Set(nets.map(sectionOf))], (section) =>
    entryAt(circuit.sections, section).drivers.flatMap((d) =>
      d.stages.map((s) => sectionOf(s.from)),
    ),
  );
}

/** So many parts of one source are followed one by one: each effect in a row doubles them. */
const MOST_PARTS = 16;

/**
 * Joins what belongs together: the same source, made unrelated by the same, or by nothing. Of very many parts
 * the faintest of each source become one, with the power of all of them at each harmonic.
 */
export function joined(parts: readonly Part[], perTouch = allTouches): Part[] {
  if (parts.length < 2) return [...parts];
  const all = gathered(parts, sumOf, perTouch);
  if (all.length <= MOST_PARTS) return all;
  return [...byKey(all, (p) => p.source).values()].flatMap((mine) => {
    if (mine.length <= MOST_PARTS) return mine;
    const sorted = mine
      .map((p) => ({ p, volts: rmsOf(p.waves[1]) }))
      .sort((a, b) => b.volts - a.volts)
      .map(({ p }) => p);
    const faint = sorted.slice(MOST_PARTS - 1);
    // What parts and meets again is one wave as long as it is called the same.
    const unrelated = `${entryAt(faint, 0).unrelated} and others`;
    const rest = faint.map((p) => ({ ...p, unrelated }));
    return [
      ...sorted.slice(0, MOST_PARTS - 1),
      ...gathered(rest, (a, b) => together({ row: a, by: 1 }, { row: b, by: 1 }, true), perTouch),
    ];
  });
}

/** Parts of one name become one. */
function gathered(
  parts: readonly Part[],
  meet: (a: Spectrum, b: Spectrum) => Spectrum,
  perTouch: Touches,
): Part[] {
  const by = new Map<string, Part>();
  for (const p of parts) {
    const key = `${p.source} ${p.unrelated}`;
    const was = by.get(key);
    by.set(key, was ? { ...was, waves: perTouch((t) => meet(was.waves[t], p.waves[t])) } : p);
  }
  return [...by.values()];
}

/** RMS of parts that do not belong together, in volts: their powers add. */
export const togetherVolts = (parts: readonly Part[], touch: 0 | 1 | 2): number =>
  Math.sqrt(parts.reduce((sum, p) => sum + rmsOf(p.waves[touch]) ** 2, 0));

/** What leaves a stage: filters, compression, the ceiling, filters again, and the way to the output. */
function throughStage(
  { device, stage }: CircuitStage,
  input: readonly Part[],
  perTouch: Touches,
): { parts: Part[]; added?: Added } {
  if (stage.muted || !input.length) return { parts: [] };
  const before = input.map((p): Part => {
    const { before: h } = stageResponse(stage, p.hertz);
    return h ? { ...p, waves: perTouch((t) => filtered(p.waves[t], h)) } : p;
  });
  const bent = perTouch((t) => bend(stage, before, t));
  const output = ratio(stage.outputDb) * (stage.inverts ? -1 : 1);
  const through = before.map((p, i): Part => {
    const { after: h } = stageResponse(stage, p.hertz);
    return {
      ...p,
      waves: perTouch((t) => {
        const bare = scaledBy(bent[t].waves[i]!, output);
        const wave = h ? filtered(bare, h) : bare;
        return stage.latencyMs ? delayed(wave, p.hertz, stage.latencyMs) : wave;
      }),
    };
  });
  const db = perTouch((t) => bent[t].addedDb);
  return {
    parts: through.flatMap((p) => leaving(device, stage, p, perTouch)),
    ...(db.some((x) => x !== null) && { added: { device, stage: stage.id, db } }),
  };
}

/** One part behind the ceiling: whole, dry and wet apart, or one side of a widened signal. */
function leaving(device: string, stage: Stage, p: Part, perTouch: Touches): Part[] {
  const apart = (db: number, unrelated: string): Part[] =>
    db > -Infinity
      ? [{ ...p, unrelated, waves: perTouch((t) => scaledBy(p.waves[t], ratio(db))) }]
      : [];
  const side = stage.side ? ` ${device} ${stage.side}` : '';
  if (!stage.wet) return side ? [{ ...p, unrelated: p.unrelated + side }] : [p];
  return [
    ...apart(stage.wet.dryDb, p.unrelated),
    ...apart(stage.wet.wetDb, `${p.unrelated} ${device}${side}`),
  ];
}

/**
 * Parts under a stage's gain and ceiling `c`: `y = c·tanh(g·x/c)` where it clips softly, a limit
 * where it clips hard; one that is not meant to be overdriven is linear up to its ceiling. Parts
 * that are not one wave are each bent as if they alone had the level of all (a simplification).
 */
function bend(
  stage: Stage,
  parts: readonly Part[],
  touch: 0 | 1 | 2,
): { waves: Spectrum[]; addedDb: number | null } {
  const total = togetherVolts(parts, touch);
  const ceiling = voltsOfDbu(stage.ceiling.dbu) * Math.SQRT2;
  const gain = ratio(stage.gainDb) * squeeze(stage, total);
  const { shape, meant } = stage.ceiling;
  let added = 0;
  let power = 0;
  const waves = parts.map((p) => {
    const wave = scaledBy(p.waves[touch], gain);
    const alone = rmsOf(p.waves[touch]);
    const share = alone > 0 ? total / alone : 1;
    const drive = (alone * share * gain) / ceiling;
    const low = meant ? drive * Math.SQRT2 <= 1e-4 : boundOf(wave) * share <= ceiling;
    if (low || (!meant && peakOf(wave) * share <= ceiling)) return wave;
    const x = samplesOf(wave);
    const y = x.map((v) => {
      const u = (v * share) / ceiling;
      return ((shape === 'soft' ? Math.tanh(u) : Math.max(-1, Math.min(1, u))) * ceiling) / share;
    });
    const [xy, xx, yy] = [dot(x, y), dot(x, x), dot(y, y)];
    added += yy - (xx > 0 ? xy ** 2 / xx : 0);
    power += yy;
    return spectrumOf(y);
  });
  return { waves, addedDb: added > power * 1e-9 ? 10 * Math.log10(added / power) : null };
}

const dot = (a: Float64Array, b: Float64Array): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!;
  return sum;
};

/** What a compressor that has settled makes of a level, as a factor. */
function squeeze(stage: Stage, volts: number): number {
  if (!stage.compress || volts <= 0) return 1;
  const over = dbuOfVolts(volts) - stage.compress.thresholdDbu;
  return over > 0 ? ratio(-over * (1 - 1 / stage.compress.ratio)) : 1;
}
