import type { Term } from '../optimum/mip';
import { misfit, type Place, type Taker, voltagesOf } from './power';

/**
 * One device on one outlet at one of its voltages: `i`, `j` and `v` number the three. The name is that of
 * the variable that counts it: devices that are alike share one, unless they hang there now.
 */
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
export function optionsOf(t: Taker, i: number, alike: number, p: Place, j: number): Option[] {
  // Nothing feeds itself, whatever it hands on.
  if (t.device.id === p.supply.id) return [];
  const pin = t.device.supply?.pinned ? t.device.supply : undefined;
  if (pin && (pin.device !== p.supply.id || (pin.outlet ?? p.outlet.id) !== p.outlet.id)) return [];
  const whose = isPlugged(t, p) ? `x_${i}` : `n_${alike}`;
  return voltagesOf(p.outlet).flatMap((volts, v) =>
    misfit(t.need, p.outlet, volts) ? [] : [{ t, i, p, j, volts, v, name: `${whose}_${j}_${v}` }],
  );
}

/** Of options that one variable counts, one. */
export const counted = (options: readonly Option[]): Option[] => [
  ...new Map(options.map((o) => [o.name, o])).values(),
];

export const ones = (options: readonly Option[]): Term[] =>
  counted(options).map((o) => [1, o.name]);

const isPlugged = (t: Taker, p: Place): boolean =>
  t.device.supply?.device === p.supply.id && t.device.supply.outlet === p.outlet.id;

export const isNow = (o: Option): boolean => isPlugged(o.t, o.p);
