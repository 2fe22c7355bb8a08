import { kindOf } from '../../../core/kinds';
import type { Device } from '../../../core/rig/schema';
import { DIVISIONS } from '../../../core/songs';

/** Note values to pick from. */
export const NOTES = Object.keys(DIVISIONS).map((d) => ({ value: d, label: d }));

/** What a time of a box is called on it. */
export const labelOfTime = (device: Device, setting: string): string =>
  kindOf(device.kind).parameters.find((p) => p.id === setting)?.label ?? setting;
