import { sure } from '../outcome';
import { leadPlugs, loadsOf, powerLeads, unfed } from '../build';
import type { Rig } from '../rig/schema';
import { toCsv } from './csv';

/** The power plan as it is plugged: a row for each device on each outlet, then those without power. */
export function powerPlanCsv(rig: Rig): string {
  const leads = powerLeads(rig);
  const rows = loadsOf(rig).flatMap((l) => {
    const outlet = [
      l.place.supply.name,
      l.place.outlet.label,
      l.volts,
      l.place.outlet.isolated ? 'isolated' : 'shared',
    ];
    if (!l.takers.length) return [[...outlet, '', '', 0, l.place.outlet.milliamps, '', '']];
    return l.takers.map((t) => {
      const lead = sure(leads.find((x) => x.device.id === t.device.id));
      return [
        ...outlet,
        t.device.name,
        t.need.milliamps,
        l.milliamps,
        l.place.outlet.milliamps,
        leadPlugs(lead),
        lead.metres ?? '',
      ];
    });
  });
  return toCsv(
    [
      'supply',
      'outlet',
      'volts V',
      'return',
      'device',
      'takes mA',
      'outlet load mA',
      'outlet gives mA',
      'lead',
      'lead m',
    ],
    [
      ...rows,
      ...unfed(rig).map((t) => [
        'none',
        '',
        '',
        '',
        t.device.name,
        t.need.milliamps,
        '',
        '',
        '',
        '',
      ]),
    ],
  );
}
