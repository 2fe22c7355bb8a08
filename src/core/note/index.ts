import { buildCircuit, type Circuit } from '../circuit';
import { kindOf } from '../kinds';
import { deviceOf } from '../rig/find';
import type { Rig, Sound } from '../rig/schema';
import { dbuOfVolts } from '../units';
import { figurePoints, stationsOf } from '../walk';
import { bandsOf, noteAt, type NoteAt, stationNote, type StationNote } from './figures';
import { LOW_E } from './pluck';
import { type NoiseAt, noiseIn } from './noise';
import type { Mains } from './noise-lines';
import { type Lift, liftOf } from './responses';
import { overNoise } from './over-noise';
import { type Added, runNormalNote, runNote, togetherVolts } from './run';

export { BANDS } from './bands';
export type { NoteAt, NoteFigures, StationNote } from './figures';
export type { Lift } from './responses';
export { type NoiseAt, type NoiseFigures, noiseIn } from './noise';
export type { Mains } from './noise-lines';
export { overNoise } from './over-noise';
export type { Added } from './run';

/** One note played through a rig in one sound. */
export interface PlayedNote {
  /** What of it is at a jack or an inner point; undefined where nothing sounds. */
  at: (device: string, point: string) => NoteAt | undefined;
  /** Its loudness and bands there at normal picking; undefined where nothing sounds. */
  heard: (device: string, point: string) => StationNote | undefined;
  /** Its loudness there at normal picking, in dBu, of all or of one source; undefined where it is silent. */
  loudness: (device: string, point: string, source?: string) => number | undefined;
  /** What each stage adds to it that no gain could. */
  added: () => Added[];
}

/** Found when it is first asked for. */
function once<T extends object>(find: () => T): () => T {
  let found: T | undefined;
  return () => (found ??= find());
}

const played = new WeakMap<Rig, Map<string, PlayedNote>>();

/**
 * Plays each source's lowest usual note through a rig in one sound; remembered while the rig stays
 * the same.
 *
 *     playNote(rig, sound).at('amp', 'in')?.touches[1].loudnessDbu
 */
export function playNote(rig: Rig, sound: Sound): PlayedNote {
  const known = played.get(rig) ?? new Map<string, PlayedNote>();
  played.set(rig, known);
  const before = known.get(sound.id);
  if (before) return before;
  const circuit = buildCircuit(rig, sound);
  let isHeard = false;
  const whole = once(() => {
    isHeard = true;
    return runNote(circuit);
  });
  // Who has heard it all has heard it at normal picking.
  const normal = once(() => (isHeard ? whole() : runNormalNote(circuit)));
  const net = (device: string, point: string) => circuit.netAt(device, point)?.index ?? -1;
  const note: PlayedNote = {
    at: (device, point) => noteAt(whole().at(net(device, point))),
    heard: (device, point) => stationNote(normal().at(net(device, point))),
    loudness: (device, point, source) => {
      const parts = normal().at(net(device, point));
      return stationNote(parts.filter((p) => source === undefined || p.source === source))
        ?.loudnessDbu;
    },
    added: () => whole().added,
  };
  known.set(sound.id, note);
  return note;
}

/**
 * Plays a note through a circuit and gives the level at normal picking in third-octave bands, in
 * dBu, of each source that is at a point.
 */
export function noteIn(circuit: Circuit) {
  const { at } = runNormalNote(circuit);
  return (device: string, point: string): Map<string, (number | null)[]> => {
    const net = circuit.netAt(device, point);
    const parts = net ? at(net.index) : [];
    return new Map(
      [...new Set(parts.map((p) => p.source))].map((source) => [
        source,
        bandsOf(parts.filter((p) => p.source === source)),
      ]),
    );
  };
}

/**
 * Plays a note through a circuit as far as some points, and gives its level at normal picking at each of
 * them, in dBu; nothing where it is silent.
 */
export function noteLevels(
  circuit: Circuit,
  points: readonly { device: string; point: string }[],
): (device: string, point: string) => number | undefined {
  const nets = points.flatMap((p) => circuit.netAt(p.device, p.point)?.index ?? []);
  const { at } = runNormalNote(circuit, nets);
  return (device, point) => {
    const net = circuit.netAt(device, point);
    const volts = net ? togetherVolts(at(net.index), 1) : 0;
    return volts > 0 ? dbuOfVolts(volts) : undefined;
  };
}

/** What each device's stages lift of a low note, the highest of them: where and by how much. */
export function liftsIn({ stages }: Circuit): Map<string, Lift> {
  const highest = new Map<string, Lift>();
  for (const { device, lead, stage } of stages) {
    if (lead) continue;
    const lift = liftOf(stage, LOW_E.hertz);
    if (lift.db > (highest.get(device)?.db ?? 0)) highest.set(device, lift);
  }
  return highest;
}

/** The note at a net of a circuit that stands for itself; undefined where nothing sounds. */
export const noteOfNet = (circuit: Circuit, net: number): NoteAt | undefined =>
  noteAt(runNote(circuit).at(net));

/**
 * The note behind every station of a sound, at the first of its outputs that carries it; where its way ends, as
 * it comes in. Silent ones are left out.
 */
export function notesOfStations(rig: Rig, sound: Sound): Map<string, StationNote> {
  const { heard } = playNote(rig, sound);
  return new Map(
    stationsOf(rig, sound).stations.flatMap((s): [string, StationNote][] => {
      const device = deviceOf(rig, s.device);
      const taken = device && kindOf(device.kind).destination?.jacks;
      const [note] = figurePoints(s, taken).flatMap((p) => heard(s.device, p) ?? []);
      return note ? [[s.id, note]] : [];
    }),
  );
}

/** The note at one destination in one sound, null where it is silent, and the noise beside it. */
export interface HeardNote {
  sound: string;
  note: NoteAt | null;
  noise: NoiseAt;
  /** Loudness of the note over the weighted noise while it is played, in dB; null where one is missing. */
  weightedSignalToNoiseDb: number | null;
}

/** The note and the noise at the louder side of a destination, in every sound. */
export function notesAt(rig: Rig, destination: string, mains?: Mains): HeardNote[] {
  const device = deviceOf(rig, destination);
  const points = device ? (kindOf(device.kind).destination?.jacks ?? []) : [];
  return rig.sounds.map((sound) => {
    const { at } = playNote(rig, sound);
    const noiseAt = noiseIn(rig, sound, mains);
    const sides = points.map((point) => ({
      note: at(destination, point) ?? null,
      noise: noiseAt(destination, point),
    }));
    const louder = (a: (typeof sides)[number], b: (typeof sides)[number]) =>
      (b.note?.touches[1].levelDbu ?? -Infinity) - (a.note?.touches[1].levelDbu ?? -Infinity) ||
      (b.noise.playing?.weightedDbu ?? -Infinity) - (a.noise.playing?.weightedDbu ?? -Infinity);
    const { note, noise } = sides.sort((a, b) => louder(a, b) || 0)[0] ?? SILENT;
    return { sound: sound.id, note, noise, weightedSignalToNoiseDb: overNoise(note, noise) };
  });
}

const SILENT = { note: null, noise: { idle: null, playing: null } };
