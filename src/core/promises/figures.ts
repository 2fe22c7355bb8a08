import { sure } from '../outcome';
import { nameOf } from '../rig/find';
import type { PromiseOf, Sound } from '../rig/schema';
import { fixed } from '../units';
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

/** Signal-to-noise at a destination stays over a figure wherever it hears anything. */
export const noiseUnder: InSound<'noise-under'> = (p, { rig }, _sound, report) => {
  const d = report.destinations.find((x) => x.device === p.destination);
  if (!d || d.signalToNoiseDb === null || d.signalToNoiseDb > p.db) return [];
  return [
    {
      sound: report.sound,
      why:
        `It is ${fixed(d.signalToNoiseDb)} dB; most of the noise comes ` +
        `from ${d.noisiest ? nameOf(rig, d.noisiest) : 'the input itself'}.`,
      subjects: [p.destination, ...(d.noisiest ? [d.noisiest] : [])],
    },
  ];
};

/** Latency to a destination stays under a figure. */
export const latencyUnder: InSound<'latency-under'> = (p, { rig }, _sound, report) => {
  const d = report.destinations.find((x) => x.device === p.destination);
  if (!d || d.latencyMs === null || d.latencyMs < p.ms) return [];
  let before = 0;
  const adds = d.route.flatMap((id) => {
    const s = sure(report.stations.find((x) => x.id === id));
    const ms = (s.output.latencyMs ?? before) - before;
    before = Math.max(before, s.output.latencyMs ?? 0);
    return ms > 0.01 ? [`${nameOf(rig, s.device)} ${fixed(ms)} ms`] : [];
  });
  return [
    {
      sound: report.sound,
      why: `It is ${fixed(d.latencyMs)} ms: ${adds.join(', ')}.`,
      subjects: [p.destination],
    },
  ];
};

/**
 * Levels of several sounds at one destination lie close together; solos as much over them as is
 * wanted, with the same tolerance.
 */
export function levelsWithin(
  p: PromiseOf<'levels-within'>,
  { report }: Ground,
  sounds: readonly Sound[],
): Breach[] {
  const solos = new Set(p.solos ?? []);
  const heard = sounds.flatMap((s) => {
    const level = report(s.id)?.destinations.find((d) => d.device === p.destination)?.levelDbu
      ?.normal;
    return level === undefined ? [] : [{ sound: s, level, solo: solos.has(s.id) }];
  });
  const plain = heard.filter((h) => !h.solo).sort((a, b) => a.level - b.level);
  const [quiet, loud] = [plain[0], plain.at(-1)];
  const breaches: Breach[] = [];
  if (quiet && loud && loud.level - quiet.level > p.db) {
    breaches.push({
      sound: loud.sound.id,
      why:
        `${loud.sound.name} stands at ${fixed(loud.level)} dBu and ${quiet.sound.name} ` +
        `at ${fixed(quiet.level)} dBu: ${fixed(loud.level - quiet.level)} dB apart.`,
      subjects: [p.destination],
    });
  }
  if (!plain.length) return breaches;
  const middle = plain.reduce((s, h) => s + h.level, 0) / plain.length;
  for (const h of heard.filter((x) => x.solo)) {
    const over = h.level - middle;
    if (Math.abs(over - (p.soloDb ?? 0)) > p.db)
      breaches.push({
        sound: h.sound.id,
        why:
          `${h.sound.name} stands ${fixed(Math.abs(over))} dB ${over < 0 ? 'under' : 'over'} ` +
          `the mean of the others (${fixed(middle)} dBu); ${fixed(p.soloDb ?? 0)} dB over ` +
          'was promised.',
        subjects: [p.destination],
      });
  }
  return breaches;
}
