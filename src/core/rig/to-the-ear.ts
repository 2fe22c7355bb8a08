import { sameJson } from './same-json';
import type { Device } from './schema';

/** What of a device no figure, message or promise reads: only drawings, lists and building do. */
const UNHEARD = ['notes', 'gear', 'size', 'units', 'jackSpots', 'at', 'rack', 'mains'] as const;
const IS_UNHEARD: ReadonlySet<string> = new Set(UNHEARD);

/** Whether two states of a device do the same in sound and messages. Its board counts: hum asks for it. */
function isSame(a: Device, b: Device): boolean {
  if (a === b) return true;
  if (a.at?.board !== b.at?.board) return false;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  for (const key of keys)
    if (!IS_UNHEARD.has(key) && a[key] !== b[key] && !sameJson(a[key], b[key])) return false;
  return true;
}

/** Whether two lists of devices do the same in sound and messages, one by one. */
export const sameToTheEar = (a: readonly Device[], b: readonly Device[]): boolean =>
  a === b || (a.length === b.length && a.every((d, i) => isSame(d, b[i] as Device)));
