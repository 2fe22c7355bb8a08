import { sure } from '../outcome';
import { type Flowing, runSignal } from './flow';
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
  /** Stations that make up a destination. */
  destinations: { device: Device; points: string[]; station?: Station }[];
}

/** Prepares a sound for analysis: circuit, signal, stations. */
export function soundContext(rig: Rig, sound: Sound, plugged = pluggedJacks(rig)): SoundContext {
  const flowing = runSignal(buildCircuit(rig, sound, plugged));
  const { stations, steps } = stationsOf(rig, sound);
  const { columns, lanes } = placeStations(stations, steps);
  const devices = new Map(rig.devices.map((d) => [d.id, d]));
  const byDevice = new Map<string, Station>();
  for (const s of stations) byDevice.set(s.device, s);
  return {
    rig,
    sound,
    flowing,
    stations,
    steps,
    columns,
    lanes,
    device: (id) => sure(devices.get(sourceDevice(id))),
    at: (device, point) => {
      const net = flowing.circuit.netAt(device, point);
      return net
        ? { ...flowing.present(net.index), net: net.index }
        : {
            flows: [],
            noise: { power: 0, mostPower: 0 },
            idle: { power: 0, mostPower: 0 },
            cancelled: [],
            net: -1,
          };
    },
    ownShunts: (id) =>
      passesOf(sure(devices.get(id)), sound, plugged).filter((p) => p.is === 'shunt'),
    destinations: rig.devices.flatMap((device) => {
      const destination = kindOf(device.kind).destination;
      return destination
        ? [{ device, points: destination.jacks, station: byDevice.get(device.id) }]
        : [];
    }),
  };
}
