import { within } from './use-moving';

/**
 * A row of devices along the walk made one longer or shorter at its end: from the one that it began with
 * up to the one behind (or before) the one that it ends with, in that order. What was chosen without a gap
 * is such a row, one device alone too; with nothing chosen it begins where the walk does.
 *
 * @param walk the devices of the walk, as it goes
 * @param chosen those that are chosen, the first first
 */
export function reachAlong(
  walk: readonly string[],
  chosen: readonly string[],
  by: 1 | -1,
): readonly string[] {
  const devices = [...new Set(walk)];
  const [first, last] = [devices.indexOf(chosen[0] ?? ''), devices.indexOf(chosen.at(-1) ?? '')];
  if (first < 0 || last < 0) return devices.slice(0, 1);
  const end = devices.indexOf(within(devices, last + by) ?? '');
  const row = devices.slice(Math.min(first, end), Math.max(first, end) + 1);
  return end < first ? row.toReversed() : row;
}
