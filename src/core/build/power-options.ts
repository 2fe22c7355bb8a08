import type { Term } from '../optimum/mip';
import { misfit, type Place, type Taker, voltagesOf } from './power';

/** One device on one outlet at one of its voltages: `i`, `j` and `v` number the three. */
export interface Option {
  t: Taker;
  i: number;
  p: Place;
  j: number;
  volts: number;
  v: number;
  name: string;
}

/** The voltages at which an outlet may feed a device; none where it is pinned to another. */
export function optionsOf(t: Taker, i: number, p: Place, j: number): Option[] {
  // Nothing feeds itself, whatever it hands on.
  if (t.device.id === p.supply.id) return [];
  const pin = t.device.supply?.pinned ? t.device.supply : undefined;
  if (pin && (pin.device !== p.supply.id || (pin.outlet ?? p.outlet.id) !== p.outlet.id)) return [];
  return voltagesOf(p.outlet).flatMap((volts, v) =>
    misfit(t.need, p.outlet, volts) ? [] : [{ t, i, p, j, volts, v, name: `x_${i}_${j}_${v}` }],
  );
}

export const ones = (options: readonly Option[]): Term[] => options.map((o) => [1, o.name]);

export const isNow = (o: Option): boolean =>
  o.t.device.supply?.device === o.p.supply.id && o.t.device.supply.outlet === o.p.outlet.id;
