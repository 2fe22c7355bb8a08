import { loadsOf, unfed } from '../build';
import type { Rig } from '../rig/schema';
import { toCsv } from './csv';

/** The power plan as it is plugged: a row for each device on each outlet, then those without power. */
export function powerPlanCsv(rig: Rig): string {
  const rows = loadsOf(rig).flatMap((l) => (l.takers.length ? l.takers.map((t) => [l.place.supply.name, l.place.outlet.label, l.volts, l.place.outlet.isolated ? 'isolated' : 'shared', t.device.name, t.need.milliamps, l.milliamps, l.place.outlet.milliamps]) : [[l.place.supply.name, l.place.outlet.label, l.volts, l.place.outlet.isolated ? 'isolated' : 'shared', '', '', 0, l.place.outlet.milliamps]]));
  return toCsv(['supply', 'outlet', 'volts V', 'return', 'device', 'takes mA', 'outlet load mA', 'outlet gives mA'], [...rows, ...unfed(rig).map((t) => ['none', '', '', '', t.device.name, t.need.milliamps, '', ''])]);
}
