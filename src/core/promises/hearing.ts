import { sure } from '../outcome';
import type { SoundFigures } from '../analysis/sound-figures';
import { kindOf } from '../kinds';
import { deviceOf, nameOf } from '../rig/find';
import { sourceDevice } from '../rig/source-id';
import type { Rig, Sound } from '../rig/schema';
import { heardOf } from '../signal';
import { routeBetween, sourcesOf } from '../walk';
import type { Breach, Ground, InSound } from './ground';

/** At most this many names of a route are told; the middle of a longer one is left out. */
const FEW = 7;

/** A route in words: "Baritone, Radio pack, … , Stage head, House". */
export function routeWords(rig: Rig, devices: readonly string[]): string {
  const names = devices.map((d) => nameOf(rig, d));
  return (names.length > FEW ? [...names.slice(0, 3), '…', ...names.slice(-3)] : names).join(', ');
}

/** Devices that a source's signal meets on its way to a destination. */
const devicesBetween = (
  report: Figures,
  source: string,
  destination: string,
  open = false,
): string[] => [
  ...new Set(
    routeBetween(
      report.stations,
      report.steps,
      (s) => s.device === sourceDevice(source) && s.source,
      (s) => s.device === destination,
      open,
    ).map((s) => s.device),
  ),
];

/**
 * Whether a source is among those that arrive; where a device sends named signals only, its id stands
 * for any of them.
 */
const among = (rig: Rig, arriving: readonly string[], source: string): boolean =>
  arriving.includes(source) ||
  (!sourcesOf(rig).includes(source) && arriving.some((s) => sourceDevice(s) === source));

/** What of a sound a promise about hearing is judged on. */
type Figures = Pick<SoundFigures, 'sound' | 'stations' | 'steps' | 'destinations'>;

const isPlayed = (report: Figures, source: string): boolean =>
  report.stations.some(
    (s) => s.device === sourceDevice(source) && s.source && s.state === 'engaged',
  );

/** Figures of sounds in which an instrument that rests in them is played instead of the others. */
const played = new WeakMap<Rig, Map<string, Figures>>();

/**
 * The figures of a sound as far as it says something of a source: those that there are where it is
 * played; none where other sounds play it; and where it rests in all of them, those with it played
 * instead of the other instruments, so that a promise about it is not kept unheard.
 */
function whenPlayed({ rig, reports }: Ground, sound: Sound, report: SoundFigures, source: string) {
  if (isPlayed(report, source)) return report;
  if (reports.some((r) => isPlayed(r, source))) return undefined;
  let known = played.get(rig);
  if (!known) played.set(rig, (known = new Map<string, Figures>()));
  const key = `${sound.id} ${sourceDevice(source)}`;
  let figures = known.get(key);
  if (!figures) {
    const states = { ...sound.states };
    for (const id of new Set(sourcesOf(rig).map(sourceDevice)))
      states[id] = { ...states[id], engaged: id === sourceDevice(source) };
    const { ctx, stations, destinations } = heardOf(rig, { ...sound, states });
    figures = { sound: sound.id, stations, steps: ctx.steps, destinations };
    known.set(key, figures);
  }
  return figures;
}

/** Whether no lead is in any jack of what a source comes from. */
const isLoose = (rig: Rig, source: string): boolean =>
  !rig.leads.some((l) => [l.from, l.to].some((e) => e.device === sourceDevice(source)));

const loose = (rig: Rig, sound: string, source: string): Breach => ({
  sound,
  why: `${nameOf(rig, sourceDevice(source))} is plugged into nothing.`,
  subjects: [sourceDevice(source)],
});

/** Says where a source's signal ends on its way to a destination that should hear it. */
function whereItStops(rig: Rig, report: Figures, source: string, destination: string): Breach {
  const made = devicesBetween(report, source, destination);
  const way = made.length ? made : devicesBetween(report, source, destination, true);
  const name = (id: string) => nameOf(rig, id);
  if (!way.length)
    return {
      sound: report.sound,
      why: `No way of leads and devices leads from ${name(source)} to ${name(destination)}.`,
      subjects: [destination, sourceDevice(source)],
    };
  const at = (id: string) => report.stations.filter((s) => s.device === id);
  const comesIn = (id: string) =>
    at(id).some((s) => s.input?.levelDbu && among(rig, s.input.sources, source));
  const goesOut = (id: string) =>
    at(id).some((s) => s.output.levelDbu && among(rig, s.output.sources, source));
  const last = [...way].reverse().find((id) => comesIn(id) || goesOut(id)) ?? sourceDevice(source);
  const next = way[way.indexOf(last) + 1];
  const muted = report.stations.find((s) => way.includes(s.device) && s.state === 'muted');
  const why = muted
    ? `${name(muted.device)} mutes it.`
    : comesIn(last) && !goesOut(last)
      ? `Its signal reaches ${name(last)} and goes no further: a switch there is not made, ` +
        'or a level is all the way down.'
      : next
        ? `Its signal leaves ${name(last)} and does not arrive at ${name(next)}.`
        : 'A level on the way is turned all the way down.';
  return {
    sound: report.sound,
    why: `${why} The way would be ${routeWords(rig, way)}.`,
    subjects: [muted?.device ?? last, destination, sourceDevice(source)],
    route: way,
  };
}

/** Sources that are heard at a destination, or on one side of it. */
const heardOn = (
  d: SoundFigures['destinations'][number],
  side: 'left' | 'right' | undefined,
): string[] => d.each.filter((x) => !side || x.side === side).map((x) => x.source);

/**
 * A destination hears a source in every sound in which that source is played; one that rests in all
 * of them is played for it.
 */
export const hears: InSound<'hears'> = (p, ground, sound, report) => {
  const { rig } = ground;
  if (isLoose(rig, p.source)) return [loose(rig, report.sound, p.source)];
  const figures = whenPlayed(ground, sound, report, p.source);
  const d = (figures ?? report).destinations.find((x) => x.device === p.destination);
  if (!d)
    return [
      {
        sound: report.sound,
        why: `${nameOf(rig, p.destination)} is no destination.`,
        subjects: [p.destination],
      },
    ];
  if (!figures || among(rig, heardOn(d, p.side), p.source)) return [];
  return [whereItStops(rig, figures, p.source, p.destination)];
};

/** A destination never hears a source. */
export const neverHears: InSound<'never-hears'> = (p, ground, sound, found) => {
  const { rig } = ground;
  const report = whenPlayed(ground, sound, found, p.source) ?? found;
  const d = report.destinations.find((x) => x.device === p.destination);
  if (!d || !among(rig, heardOn(d, p.side), p.source)) return [];
  const route = devicesBetween(report, p.source, p.destination);
  return [
    {
      sound: report.sound,
      why: `${nameOf(rig, p.source)} reaches it by way of ${routeWords(rig, route)}.`,
      subjects: [p.destination, sourceDevice(p.source)],
      route,
    },
  ];
};

/**
 * At least one tuner hears a source in every sound in which that source is played. A tuner pedal on
 * the way counts, even while it mutes.
 */
export const tunerHears: InSound<'tuner-hears'> = (p, ground, sound, found) => {
  const { rig } = ground;
  if (isLoose(rig, p.source)) return [loose(rig, found.sound, p.source)];
  const report = whenPlayed(ground, sound, found, p.source);
  if (!report) return [];
  const kindAt = (id: string) => kindOf(sure(deviceOf(rig, id)).kind);
  const tuners = report.stations.filter(
    (s) => kindAt(s.device).job === 'tuner' || kindAt(s.device).destination?.hears === 'tuner',
  );
  if (
    tuners.some(
      (s) => among(rig, (s.input ?? s.output).sources, p.source) && (s.input ?? s.output).levelDbu,
    )
  )
    return [];
  const first = tuners[0];
  return [
    first
      ? whereItStops(rig, report, p.source, first.device)
      : {
          sound: report.sound,
          why: 'There is no tuner in this rig.',
          subjects: [sourceDevice(p.source)],
        },
  ];
};
