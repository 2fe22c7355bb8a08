import { type Kind, kindOf } from '../kinds';
import type { Device } from './schema';

export const PLACES = ['player', 'floor', 'rack', 'amps', 'house'] as const;
export type Place = (typeof PLACES)[number];
export const PLACE_NAMES: Record<Place, string> = {
  player: 'Player',
  floor: 'Floor',
  rack: 'Rack',
  amps: 'Amps',
  house: 'House',
};

/** A width of 19 inches, in millimetres: what has it belongs in a rack. */
const RACK_MM = 483;

/** Where a device stands: where it was put, else where its kind usually stands. */
export function placeOf(device: Device, kind: Kind = kindOf(device.kind)): Place {
  if (device.place) return device.place;
  if (kind.stands) return kind.stands;
  if (kind.job === 'instrument') return 'player';
  if (['amp', 'cabinet', 'microphone'].includes(kind.job) || kind.destination?.hears === 'stage')
    return kind.size?.width === RACK_MM ? 'rack' : 'amps';
  if (kind.destination)
    return kind.destination.hears === 'house' || kind.destination.hears === 'recorder'
      ? 'house'
      : 'rack';
  return kind.size?.width === RACK_MM || kind.job === 'wireless' ? 'rack' : 'floor';
}
