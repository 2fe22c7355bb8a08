import { sure } from '../outcome';
import { type Flowing, type Rerun, runSignal } from './flow';
import { SILENT } from './hiss';
import { buildCircuit, passesOf, pluggedJacks } from '../circuit';
import { kindOf, type Shunt } from '../kinds';
import { sourceDevice } from '../rig/source-id';
import type { Device, Rig, Sound } from '../rig/schema';
import { placeStations, type Station, stationsOf, type Step } from '../walk';

/** Everything that the analyses of one sound read. */
export interface SoundContext {
  rig: Rig;
  sound: Sound;
  flowing: Flowing;
  stations: Station[];
  steps: Step[];
  columns: number;
  lanes: number;
  device: (id: string) => Device;
  /** What is present at a jack. */
  at: (device: string, point: string) => ReturnType<Flowing['present']> & { net: number };
  /** A device's own parts to ground, whatever it is connected to. */
  ownShunts: (device: string) => Shunt[];
  /** Destinations, with the jacks at which they hear. */
  destinations: { device: Device; points: string[] }[];
}

/** A sound's stations and steps, and how many columns and lanes they take. */
type Walked = Pick<SoundContext, 'stations' | 'steps' | 'columns' | 'lanes'>;

function walkOf(rig: Rig, sound: Sound): Walked {
  const { stations, steps } = stationsOf(rig, sound);
  return { stations, steps, ...placeStations(stations, steps) };
}

/**
 * Prepares a sound for analysis: circuit and signal at once, the walk's stations when they are first
 * asked for, which copies that are only listened to never do.
 */
export function soundContext(
  rig: Rig,
  sound: Sound,
  plugged = pluggedJacks(rig),
  rerun?: Rerun,
): SoundContext {
  const flowing = runSignal(buildCircuit(rig, sound, plugged), rerun);
  let walked: Walked | undefined;
  const walk = () => (walked ??= walkOf(rig, sound));
  const devices = new Map(rig.devices.map((d) => [d.id, d]));
  return {
    rig,
    sound,
    flowing,
    get stations() {
      return walk().stations;
    },
    get steps() {
      return walk().steps;
    },
    get columns() {
      return walk().columns;
    },
    get lanes() {
      return walk().lanes;
    },
    device: (id) => sure(devices.get(sourceDevice(id))),
    at: (device, point) => {
      const net = flowing.circuit.netAt(device, point);
      return net
        ? { ...flowing.present(net.index), net: net.index }
        : {
            flows: [],
            noise: SILENT,
            idle: SILENT,
            cancelled: [],
            net: -1,
          };
    },
    ownShunts: (id) =>
      passesOf(sure(devices.get(id)), sound, plugged).filter((p) => p.is === 'shunt'),
    destinations: rig.devices.flatMap((device) => {
      const destination = kindOf(device.kind).destination;
      return destination ? [{ device, points: destination.jacks }] : [];
    }),
  };
}

/**
 * A sound on a copy of its rig, or with some of its settings otherwise, that is only listened to: noise is
 * left out, and where nothing is different from what is known, that is taken over.
 */
export const listenedTo = (
  known: SoundContext,
  copy: Rig,
  sound: Sound = known.sound,
): SoundContext =>
  soundContext(copy, sound, pluggedJacks(copy), {
    ...{ like: known.flowing, withoutNoise: true },
  });
