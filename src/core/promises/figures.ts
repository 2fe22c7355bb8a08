import { sure } from '../outcome';
import type { SoundFigures } from '../analysis/sound-figures';
import { nameOf } from '../rig/find';
import { sourceDevice } from '../rig/source-id';
import type { Rig } from '../rig/schema';
import { allOf, fixed } from '../units';
import { routeBetween } from '../walk';
import type { InSound } from './ground';
import { routeWords } from './hearing';
import { type Destination, partsOf } from './parts';

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
          `${d.name} hears ${allOf(d.sources.map((s) => nameOf(rig, s)))} ` +
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
