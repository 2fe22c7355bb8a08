/**
 * A source as it is known along the way: its device, and its name where the device sends several
 * signals at once ("tracks/click").
 */
export const sourceId = (device: string, name?: string): string =>
  name === undefined ? device : `${device}/${name}`;

/** The device of a source, or the id of a device as it is. */
export function sourceDevice(source: string): string {
  const end = source.indexOf('/');
  return end < 0 ? source : source.slice(0, end);
}
