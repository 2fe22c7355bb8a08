import type { Rig } from '../rig/schema';
import { placeStations } from './place';
import { stationsOf } from './stations';

/** Devices in the order of the walk, whatever the sound. */
export function walkOrder(rig: Rig): string[] {
  const { stations, steps } = stationsOf(rig, rig.sounds[0]);
  placeStations(stations, steps);
  return [
    ...new Set(
      [...stations].sort((a, b) => a.lane - b.lane || a.column - b.column).map((s) => s.device),
    ),
  ];
}
