import { sameJson } from './same-json';
import type { Device, Lead } from './schema';

/** What of a device no figure, message or promise reads: only drawings, lists and building do. */
const UNHEARD = ['notes', 'gear', 'size', 'units', 'jackSpots', 'at', 'rack', 'mains'] as const;

/** What of a device building does not read either. */
const UNBUILT = ['notes'] as const;

/** Whether two states of a device are the same but for what nobody reads of them. */
function isSame(a: Device, b: Device, unread: readonly string[]): boolean {
  if (a === b) return true;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  for (const key of keys)
    if (!unread.includes(key) && a[key] !== b[key] && !sameJson(a[key], b[key])) return false;
  return true;
}

type Devices = readonly Device[];
const areSame = (a: Devices, b: Devices, same: (d: Device, then: Device) => boolean): boolean =>
  a === b || (a.length === b.length && a.every((d, i) => same(d, b[i] as Device)));

/** Whether two lists of devices are the same, one by one, but for some fields. */
export const sameDevicesBut = (
  a: Devices,
  b: Devices,
  unread: readonly (keyof Device)[],
): boolean => areSame(a, b, (d, then) => isSame(d, then, unread));

/**
 * Whether two lists of devices do the same in sound and messages, one by one. Which board something stands on
 * counts: hum asks for it.
 */
export const sameToTheEar = (a: Devices, b: Devices): boolean =>
  areSame(a, b, (d, then) => d.at?.board === then.at?.board && isSame(d, then, UNHEARD));

/** Whether two lists of devices are the same but for where on its board something stands. */
export const sameButSpot = (a: Devices, b: Devices): boolean =>
  areSame(a, b, (d, then) => d.at?.board === then.at?.board && isSame(d, then, ['notes', 'at']));

/** Whether two lists of devices are built and carried alike, one by one. */
export const sameToTheHand = (a: Devices, b: Devices): boolean => sameDevicesBut(a, b, UNBUILT);

/** Whether two leads join the same in the same way: they differ at most in length, and in what they load. */
function runsAlike(a: Lead, b: Lead): boolean {
  if (a === b) return true;
  const way = ({ metres: _m, pF: _p, ...rest }: Lead) => rest;
  return a.type !== 'air' && sameJson(way(a), way(b));
}

/** Whether two lists of leads join the same in the same way, one by one, however long they are. */
export const sameButLength = (a: readonly Lead[], b: readonly Lead[]): boolean =>
  a === b || (a.length === b.length && a.every((l, i) => runsAlike(l, b[i] as Lead)));
