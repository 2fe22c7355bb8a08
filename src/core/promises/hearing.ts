import { sure } from '../outcome';
import type { SoundFigures } from '../analysis/sound-figures';
import { kindOf } from '../kinds';
import { nameOf } from '../rig/find';
import { sourceDevice } from '../rig/source-id';
import type { Rig } from '../rig/schema';
import { routeBetween, sourcesOf } from '../walk';
import type { Breach, InSound } from './ground';

/** At most this many names of a route are told; the middle of a longer one is left out. */
const FEW = 7;

/** A route in words: "Baritone, Radio pack, … , Stage head, House". */
export function routeWords(rig: Rig, devices: readonly string[]): string {
  const names = devices.map((d) => nameOf(rig, d));
  return (names.length > FEW ? [...names.slice(0, 3), '…', ...names.slice(-3)] : names).join(', ');
}

/** Devices that a source's signal meets on its way to a destination. */
const devicesBetween = (
  report: SoundFigures,
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

const isPlayed = (report: SoundFigures, source: string): boolean =>
  report.stations.some(
    (s) => s.device === sourceDevice(source) && s.source && s.state === 'engaged',
  );

/** Says where a source's signal ends on its way to a destination that should hear it. */
function whereItStops(rig: Rig, report: SoundFigures, source: string, destination: string): Breach {
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

/** A destination hears a source in every sound in which that source is played. */
export const hears: InSound<'hears'> = (p, { rig }, _sound, report) => {
  const d = report.destinations.find((x) => x.device === p.destination);
  if (!d)
    return [
      {
        sound: report.sound,
        why: `${nameOf(rig, p.destination)} is no destination.`,
        subjects: [p.destination],
      },
    ];
  if (!isPlayed(report, p.source) || among(rig, heardOn(d, p.side), p.source)) return [];
  return [whereItStops(rig, report, p.source, p.destination)];
};

/** A destination never hears a source. */
export const neverHears: InSound<'never-hears'> = (p, { rig }, _sound, report) => {
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
export const tunerHears: InSound<'tuner-hears'> = (p, { rig }, _sound, report) => {
  if (!isPlayed(report, p.source)) return [];
  const kindAt = (id: string) => kindOf(sure(rig.devices.find((d) => d.id === id)).kind);
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
