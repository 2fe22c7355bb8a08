import { sure } from '../outcome';
import type { SoundFigures } from '../analysis/sound-figures';
import { nameOf } from '../rig/find';
import { sourceDevice } from '../rig/source-id';
import type { PromiseOf, Rig, Sound } from '../rig/schema';
import { fixed } from '../units';
import { routeBetween } from '../walk';
import type { Breach, Ground, InSound } from './ground';
import { routeWords } from './hearing';

/**
 * A destination is stereo in every sound in which it hears anything; with its partner, where two
 * speakers share the width.
 */
export const stereo: InSound<'stereo'> = (p, { rig }, _sound, report) => {
  const d = report.destinations.find((x) => x.device === p.destination);
  if (!d?.levelDbu)
    return [
      {
        sound: report.sound,
        why: `${nameOf(rig, p.destination)} hears nothing.`,
        subjects: [p.destination],
      },
    ];
  if (d.channels === 'stereo' || d.pairedWith) return [];
  const at = d.collapsedAt
    ? `${nameOf(rig, d.widenedBy!)} makes it wide, and ${nameOf(rig, d.collapsedAt)} makes it mono again.`
    : d.side
      ? `Only the ${d.side} side arrives.`
      : 'Nothing on the way makes its two sides differ, or only one line arrives.';
  const route = d.route.map((id) => sure(report.stations.find((s) => s.id === id)).device);
  return [
    {
      sound: report.sound,
      why: `It is ${d.channels}. ${at} The way: ${routeWords(rig, [...new Set(route)])}.`,
      subjects: [p.destination, ...(d.collapsedAt ? [d.collapsedAt] : [])],
      route,
    },
  ];
};

/** Everything but the tuner is silent in the sounds that are meant to be. */
export const mutedSilent: InSound<'muted-silent'> = (_p, { rig }, _sound, report) =>
  report.destinations
    .filter((d) => d.hears !== 'tuner' && d.levelDbu)
    .map((d) => {
      const route = [
        ...new Set(d.route.map((id) => sure(report.stations.find((s) => s.id === id)).device)),
      ];
      return {
        sound: report.sound,
        why:
          `${d.name} hears ${d.sources.map((s) => nameOf(rig, s)).join(' and ')} ` +
          `at ${fixed(d.levelDbu!.normal)} dBu by way of ${routeWords(rig, route)}.`,
        subjects: [d.device],
        route,
      };
    });

/** No tube amplifier is without a load. */
export const noTubeUnloaded: InSound<'no-tube-unloaded'> = (_p, { rig }, _sound, report) =>
  report.speakers
    .filter((l) => l.tube && l.loadOhms === null)
    .map((l) => ({
      sound: report.sound,
      why: `${nameOf(rig, l.amp)} has nothing on its speaker output.`,
      subjects: [l.amp],
    }));

/** Which side, and whose, in words: "the left side", "Mandolin on the left side"; none where there is but one. */
const partWords = (rig: Rig, x: { side: Side | null; source?: string }, many: boolean): string =>
  [
    ...(x.source !== undefined && many ? [nameOf(rig, x.source)] : []),
    ...(x.side ? [`the ${x.side} side`] : []),
  ].join(' on ');
type Side = 'left' | 'right';
type Destination = SoundFigures['destinations'][number];

/** Each source on each side that a promise speaks of. */
const partsOf = (d: Destination, p: { side?: Side; source?: string }) =>
  d.each.filter(
    (x) =>
      (!p.side || x.side === p.side) &&
      (p.source === undefined || x.source === p.source || sourceDevice(x.source) === p.source),
  );

/** Signal-to-noise at a destination stays over a figure, on each side that hears anything. */
export const noiseUnder: InSound<'noise-under'> = (p, { rig }, _sound, report) => {
  const d = report.destinations.find((x) => x.device === p.destination);
  if (!d) return [];
  const sides = d.sides.flatMap(({ levelDbu, noiseDbu }, i) =>
    levelDbu && noiseDbu !== null
      ? [{ side: i ? ('right' as const) : ('left' as const), db: levelDbu.normal - noiseDbu }]
      : [],
  );
  const whole = d.signalToNoiseDb === null ? [] : [{ side: null, db: d.signalToNoiseDb }];
  const worst = (sides.length ? sides.filter((x) => !p.side || x.side === p.side) : whole)
    .filter((x) => x.db <= p.db)
    .sort((a, b) => a.db - b.db)[0];
  if (!worst) return [];
  const isOne = d.channels === 'mono' || sides.length < 2;
  return [
    {
      sound: report.sound,
      why:
        `${worst.side && !isOne ? `The ${worst.side} side` : 'It'} is ${fixed(worst.db)} dB; most of the noise comes ` +
        `from ${d.noisiest ? nameOf(rig, d.noisiest) : 'the input itself'}.`,
      subjects: [p.destination, ...(d.noisiest ? [d.noisiest] : [])],
    },
  ];
};

/** Latency to a destination stays under a figure, of each source that arrives there. */
export const latencyUnder: InSound<'latency-under'> = (p, { rig }, _sound, report) => {
  const d = report.destinations.find((x) => x.device === p.destination);
  const late = d && partsOf(d, p).sort((a, b) => b.latencyMs - a.latencyMs)[0];
  if (!late || late.latencyMs < p.ms) return [];
  const many = new Set(d.each.map((x) => x.source)).size > 1;
  const name = many ? `${nameOf(rig, sourceDevice(late.source))} is` : 'It is';
  const adds = addedOnTheWay(rig, report, d, late.source);
  return [
    {
      sound: report.sound,
      why: `${name} ${fixed(late.latencyMs)} ms late${adds.length ? `: ${adds.join(', ')}` : ''}.`,
      subjects: [p.destination, ...(many ? [sourceDevice(late.source)] : [])],
    },
  ];
};

/** Devices on the way of a source to a destination that make it later, each with its ms. */
function addedOnTheWay(rig: Rig, report: SoundFigures, d: Destination, source: string): string[] {
  let before = 0;
  return routeBetween(
    report.stations,
    report.steps,
    (s) => s.device === sourceDevice(source) && s.source,
    (s) => s.device === d.device,
  ).flatMap(({ id }) => {
    const s = sure(report.stations.find((x) => x.id === id));
    const now = s.output.sources.includes(source) ? (s.output.latencyMs ?? before) : before;
    const ms = now - before;
    before = Math.max(before, now);
    return ms > 0.01 ? [`${nameOf(rig, s.device)} ${fixed(ms)} ms`] : [];
  });
}

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
  const at = sounds.flatMap((sound) => {
    const d = report(sound.id)?.destinations.find((x) => x.device === p.destination);
    return d?.levelDbu ? [{ sound, d, level: d.levelDbu.normal }] : [];
  });
  const all: Series[] = p.side || p.source !== undefined ? [] : [{ words: '', stands: at }];
  const series = [...all, ...eachSeries(rig, p, at)];
  const solos = new Set(p.solos ?? []);
  const plain = series.map(({ words, stands }) => ({
    words,
    stands: stands.filter((h) => !solos.has(h.sound.id)),
  }));
  const apart = plain.map((x) => spreadOf(p, x)).find((x) => x !== undefined);
  return [...(apart ? [apart] : []), ...solosOff(p, series, plain)];
}

/** Levels of each source on each side that a promise speaks of; bleed is left out. */
function eachSeries(
  rig: Rig,
  p: PromiseOf<'levels-within'>,
  at: readonly { sound: Sound; d: Destination; level: number }[],
): Series[] {
  const many = new Set(at.flatMap(({ d }) => d.each.map((x) => x.source))).size > 1;
  const by = new Map<string, Series>();
  for (const { sound, d, level } of at)
    for (const x of partsOf(d, p)) {
      if (x.levelDbu < level - BLEED_DB) continue;
      const words = partWords(rig, { ...x, source: sourceDevice(x.source) }, many);
      const key = `${x.jack} ${x.source}`;
      const known = by.get(key) ?? {
        words: words && `${words.replace(/^t/, 'T')}: `,
        stands: [],
      };
      known.stands.push({ sound, level: x.levelDbu });
      by.set(key, known);
    }
  return [...by.values()];
}

/** The loudest and the quietest sound of a series, where they lie further apart than was promised. */
function spreadOf(p: PromiseOf<'levels-within'>, { words, stands }: Series): Breach | undefined {
  const sorted = [...stands].sort((a, b) => a.level - b.level);
  const [quiet, loud] = [sorted[0], sorted.at(-1)];
  if (!quiet || !loud || loud.level - quiet.level <= p.db) return undefined;
  return {
    sound: loud.sound.id,
    why:
      `${words}${loud.sound.name} stands at ${fixed(loud.level)} dBu and ${quiet.sound.name} ` +
      `at ${fixed(quiet.level)} dBu: ${fixed(loud.level - quiet.level)} dB apart.`,
    subjects: [p.destination],
  };
}

/** Solos that stand as far over the mean of the others as was promised in no series. */
function solosOff(
  p: PromiseOf<'levels-within'>,
  series: readonly Series[],
  plain: readonly Series[],
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
          `${first.db < 0 ? 'under' : 'over'} the mean of the others (${fixed(first.middle)} dBu); ` +
          `${fixed(p.soloDb ?? 0)} dB over was promised.`,
        subjects: [p.destination],
      },
    ];
  });
}
