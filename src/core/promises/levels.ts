import { kindOf } from '../kinds';
import { playNote } from '../note';
import { sure } from '../outcome';
import { deviceOf } from '../rig/find';
import type { PromiseOf, Rig, Sound } from '../rig/schema';
import { sourceDevice } from '../rig/source-id';
import { fixed } from '../units';
import type { Breach, Ground } from './ground';
import { type Destination, partsOf, partWords } from './parts';

/** A source this far under the whole at a destination is bleed, in dB. */
const BLEED_DB = 40;

/** Where something stands in one sound, in dBu. */
interface Stands {
  sound: Sound;
  level: number;
}
/** Levels over the sounds: of all that arrives, or of one source on one side, by its words. */
interface Series {
  words: string;
  stands: Stands[];
}

/** What is compared: the level of a sine at 1 kHz, or the loudness of a played note, in dBu. */
interface Measure {
  words: string;
  whole: (sound: Sound, d: Destination) => number | undefined;
  part: (sound: Sound, d: Destination, x: Destination['each'][number]) => number | undefined;
}

const LEVEL: Measure = {
  words: 'dBu',
  whole: (_, d) => d.levelDbu?.normal,
  part: (_sound, _d, x) => x.levelDbu,
};

const loudnessIn = (rig: Rig): Measure => ({
  words: 'dBu of loudness',
  whole: (sound, d) => {
    const { loudness } = playNote(rig, sound);
    const jacks = kindOf(sure(deviceOf(rig, d.device)).kind).destination?.jacks ?? [];
    const sides = jacks.flatMap((jack) => loudness(d.device, jack) ?? []);
    return sides.length ? Math.max(...sides) : undefined;
  },
  part: (sound, d, x) => playNote(rig, sound).loudness(d.device, x.jack, x.source),
});

/**
 * Levels of several sounds at one destination lie close together: of all that arrives, and of each
 * source on each side, which a louder one would hide. A solo is as much over them as is wanted, with
 * the same tolerance, in all that arrives or in the source that plays it.
 */
export function levelsWithin(
  p: PromiseOf<'levels-within'>,
  { rig, report }: Ground,
  sounds: readonly Sound[],
): Breach[] {
  const measure = p.by === 'loudness' ? loudnessIn(rig) : LEVEL;
  const at = sounds.flatMap((sound) => {
    const d = report(sound.id)?.destinations.find((x) => x.device === p.destination);
    const level = d?.levelDbu && measure.whole(sound, d);
    return d && typeof level === 'number' ? [{ sound, d, level }] : [];
  });
  const all: Series[] = p.side || p.source !== undefined ? [] : [{ words: '', stands: at }];
  const series = [...all, ...eachSeries(rig, p, at, measure)];
  const solos = new Set(p.solos ?? []);
  const plain = series.map(({ words, stands }) => ({
    words,
    stands: stands.filter((h) => !solos.has(h.sound.id)),
  }));
  const apart = plain.map((x) => spreadOf(p, x, measure.words)).find((x) => x !== undefined);
  return [...(apart ? [apart] : []), ...solosOff(p, series, plain, measure.words)];
}

/** Levels of each source on each side that a promise speaks of; bleed is left out. */
function eachSeries(
  rig: Rig,
  p: PromiseOf<'levels-within'>,
  at: readonly { sound: Sound; d: Destination; level: number }[],
  measure: Measure,
): Series[] {
  const many = new Set(at.flatMap(({ d }) => d.each.map((x) => x.source))).size > 1;
  const by = new Map<string, Series>();
  for (const { sound, d, level } of at)
    for (const x of partsOf(d, p)) {
      const own = measure.part(sound, d, x);
      if (own === undefined || own < level - BLEED_DB) continue;
      const words = partWords(rig, { ...x, source: sourceDevice(x.source) }, many);
      const key = `${x.jack} ${x.source}`;
      const known = by.get(key) ?? {
        words: words && `${words.replace(/^t/, 'T')}: `,
        stands: [],
      };
      known.stands.push({ sound, level: own });
      by.set(key, known);
    }
  return [...by.values()];
}

/** The loudest and the quietest sound of a series, where they lie further apart than was promised. */
function spreadOf(
  p: PromiseOf<'levels-within'>,
  { words, stands }: Series,
  unit: string,
): Breach | undefined {
  const sorted = [...stands].sort((a, b) => a.level - b.level);
  const [quiet, loud] = [sorted[0], sorted.at(-1)];
  if (!quiet || !loud || loud.level - quiet.level <= p.db) return undefined;
  return {
    sound: loud.sound.id,
    why:
      `${words}${loud.sound.name} stands at ${fixed(loud.level)} ${unit} and ${quiet.sound.name} ` +
      `at ${fixed(quiet.level)} ${unit}: ${fixed(loud.level - quiet.level)} dB apart.`,
    subjects: [p.destination],
  };
}

/** Solos that stand as far over the mean of the others as was promised in no series. */
function solosOff(
  p: PromiseOf<'levels-within'>,
  series: readonly Series[],
  plain: readonly Series[],
  unit: string,
): Breach[] {
  return (p.solos ?? []).flatMap((id): Breach[] => {
    const over = series.flatMap(({ words, stands }, i) => {
      const solo = stands.find((h) => h.sound.id === id);
      const others = plain[i]!.stands;
      if (!solo || !others.length) return [];
      const middle = others.reduce((s, h) => s + h.level, 0) / others.length;
      return [{ words, name: solo.sound.name, middle, db: solo.level - middle }];
    });
    const [first] = over;
    if (!first || over.some((x) => Math.abs(x.db - (p.soloDb ?? 0)) <= p.db)) return [];
    return [
      {
        sound: id,
        why:
          `${first.words}${first.name} stands ${fixed(Math.abs(first.db))} dB ` +
          `${first.db < 0 ? 'under' : 'over'} the mean of the others (${fixed(first.middle)} ${unit}); ` +
          `${fixed(p.soloDb ?? 0)} dB over was promised.`,
        subjects: [p.destination],
      },
    ];
  });
}
