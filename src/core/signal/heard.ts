import type { Rig, Sound } from '../rig/schema';
import { type DestinationFigures, destinationFigures } from './destinations';
import { type Prepare, type SoundContext, soundContext } from './sound-context';
import { type StationFigures, stationFigures } from './station-figures';

/** What is present in one sound: at every station, and at every destination. */
export interface Heard {
  ctx: SoundContext;
  stations: StationFigures[];
  destinations: DestinationFigures[];
}

/** Figures of a sound at its stations and destinations. `plugged` is worked out where it is left out. */
export function heardOf(
  rig: Rig,
  sound: Sound,
  plugged?: Map<string, Set<string>>,
  prepare?: Prepare,
): Heard {
  const ctx = soundContext(rig, sound, plugged, prepare);
  const stations = stationFigures(ctx);
  return { ctx, stations, destinations: destinationFigures(ctx, stations) };
}
