import { kindOf } from '../kinds';
import type { Device, Rig } from '../rig/schema';

/** What a unit weighs, in grams: as it was put on the scales, else what its kind usually does. */
export const gramsOf = (d: Device): number | null =>
  d.gear?.grams ?? kindOf(d.kind).size?.grams ?? null;

/** Weight from which two persons lift, in grams. */
export const TWO_PERSONS_GRAMS = 23_000;

/** Sums over the gear: weight in grams, value, what is still to buy. Blocks inside hosts weigh nothing. */
export interface GearSums {
  devices: number;
  grams: number;
  unweighed: number;
  value: number;
  toBuy: Device[];
  heavy: Device[];
}

export function gearSums(rig: Rig): GearSums {
  const real = rig.devices.filter((d) => d.host === undefined);
  return {
    devices: real.length,
    grams: real.reduce((s, d) => s + (gramsOf(d) ?? 0), 0),
    unweighed: real.filter((d) => gramsOf(d) === null).length,
    value: real.reduce((s, d) => s + (d.gear?.value ?? 0), 0),
    toBuy: real.filter((d) => d.gear?.owned === false),
    heavy: real.filter((d) => (gramsOf(d) ?? 0) > TWO_PERSONS_GRAMS),
  };
}
