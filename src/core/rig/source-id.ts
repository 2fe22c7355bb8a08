import { at } from '../outcome';
/**
 * A source as it is known along the way: its device, and its name where the device sends several
 * signals at once ("tracks/click").
 */
export const sourceId = (device: string, name?: string): string =>
  name === undefined ? device : `${device}/${name}`;

/** The device of a source, or the id of a device as it is. */
export const sourceDevice = (source: string): string => at(source.split('/'), 0);
