import { at } from '../outcome';
import type { Remark } from '../findings/finding';
import { supplyTotal } from '../rig/find';
import type { Rig } from '../rig/schema';
import { HEADROOM, type Load, loadsOf, misfit, quarrel, type Taker, unfed } from './power';

/**
 * What is wrong with power as it is plugged: dangers first. Nothing is said of devices without
 * power where the rig has no supply at all.
 */
export function powerRemarks(rig: Rig): Remark[] {
  const loads = loadsOf(rig);
  if (!loads.length) return [];
  return [
    ...loads.flatMap(wrongPlugs),
    ...loads.flatMap(tooMuch),
    ...sagging(rig, loads),
    ...sharing(loads),
    ...without(rig, loads),
  ];
}

const outletWords = (l: Load): string => `${l.place.outlet.label} of ${l.place.supply.name}`;

function wrongPlugs(l: Load): Remark[] {
  return l.takers.flatMap(({ device, need }): Remark[] => {
    const wrong = misfit(need, l.place.outlet, l.volts);
    if (!wrong) return [];
    const base = { subjects: [device.id, l.place.supply.id], about: `${device.id} ${wrong}` };
    const wants = `${need.volts}${need.maxVolts ? ` to ${need.maxVolts}` : ''} V ${need.ac ? 'AC' : 'DC'}`;
    if (wrong === 'ac')
      return [
        {
          ...base,
          rule: 'power-ac',
          severity: 'danger',
          what: `${device.name} takes ${need.ac ? 'AC' : 'DC'} and gets ${need.ac ? 'DC' : 'AC'}.`,
          why: `It wants ${wants}; ${outletWords(l)} gives ${need.ac ? 'DC' : 'AC'}. The wrong one can destroy it.`,
          fix: {
            words: `Unplug ${device.name}`,
            edits: [{ edit: 'unplugPower', device: device.id }],
          },
        },
      ];
    if (wrong === 'polarity')
      return [
        {
          ...base,
          rule: 'power-polarity',
          severity: 'danger',
          what: `${device.name} gets its power the wrong way round.`,
          why:
            `Its plug is centre ${need.centre ?? 'negative'}, that of ${outletWords(l)} ` +
            `centre ${l.place.outlet.centre ?? 'negative'}. Reversed polarity can destroy it.`,
          fix: {
            words: `Unplug ${device.name}`,
            edits: [{ edit: 'unplugPower', device: device.id }],
          },
        },
      ];
    if (wrong === 'over-voltage')
      return [
        {
          ...base,
          rule: 'power-voltage',
          severity: 'danger',
          what: `${device.name} gets ${l.volts} V and bears ${need.maxVolts ?? need.volts} V.`,
          why: `${outletWords(l)} is set to ${l.volts} V. Over-voltage can destroy it.`,
          fix: {
            words: `Unplug ${device.name}`,
            edits: [{ edit: 'unplugPower', device: device.id }],
          },
        },
      ];
    return [
      {
        ...base,
        rule: 'power-low',
        severity: 'fault',
        what: `${device.name} gets ${l.volts} V and wants ${need.volts} V.`,
        why: `${outletWords(l)} gives too little for it to work as it should.`,
      },
    ];
  });
}

function tooMuch(l: Load): Remark[] {
  if (!l.takers.length || l.room >= 0) return [];
  const over = l.milliamps > l.place.outlet.milliamps;
  return [
    {
      rule: 'power-current',
      severity: over ? 'fault' : 'caution',
      subjects: [l.place.supply.id, ...l.takers.map((t) => t.device.id)],
      about: `${l.place.supply.id} ${l.place.outlet.id}`,
      what: `${outletWords(l)} gives ${over ? 'too little current' : 'its current without headroom'}.`,
      why:
        l.takers.map((t) => `${t.device.name} ${t.need.milliamps} mA`).join(', ') +
        ' ' +
        (l.takers.length > 1 ? `are ${l.milliamps} mA together` : 'is what it takes') +
        '; ' +
        `the outlet gives ${l.place.outlet.milliamps} mA, and ${Math.round(HEADROOM * 100)} ` +
        '% of the load is kept free.',
    },
  ];
}

/** A supply whose outlets together ask for more than it gives. */
function sagging(rig: Rig, loads: readonly Load[]): Remark[] {
  return rig.devices.flatMap((supply): Remark[] => {
    const total = supplyTotal(supply);
    const sum = loads
      .filter((l) => l.place.supply.id === supply.id)
      .reduce((s, l) => s + l.milliamps, 0);
    return total === undefined || sum <= total
      ? []
      : [
          {
            rule: 'power-total',
            severity: 'fault',
            subjects: [supply.id],
            about: `${supply.id} total`,
            what: `${supply.name} is asked for more than it gives.`,
            why:
              `Its outlets feed ${sum} mA; all together it gives ${total} mA, and beyond that the ` +
              'voltage sags on all of them.',
          },
        ];
  });
}

function sharing(loads: readonly Load[]): Remark[] {
  const returns = new Map<string, Taker[]>();
  for (const l of loads) {
    const key = l.place.outlet.isolated
      ? `${l.place.supply.id} ${l.place.outlet.id}`
      : l.place.supply.id;
    returns.set(key, [...(returns.get(key) ?? []), ...l.takers]);
  }
  return [...returns].flatMap(([key, takers]): Remark[] => {
    const pairs = takers.flatMap((a, i) =>
      takers
        .slice(i + 1)
        .filter((b) => quarrel(a.need, b.need))
        .map((b) => [a, b] as const),
    );
    if (!pairs.length) return [];
    const [a, b] = at(pairs, 0);
    const plus = a.need.positiveGround !== b.need.positiveGround;
    return [
      {
        rule: 'power-return',
        severity: plus ? 'danger' : 'caution',
        subjects: [...new Set(pairs.flat().map((t) => t.device.id))],
        about: `${key} return`,
        what: `${a.device.name} and ${b.device.name} must not share a return.`,
        why: plus
          ? 'The chassis of one is its plus: shared with the other, the supply is shorted.'
          : 'One is digital and chops its current, the other has high gain: what one does is ' +
            `heard in the other${pairs.length > 1 ? `; so with ${pairs.length - 1} more pairs there` : ''}.`,
      },
    ];
  });
}

function without(rig: Rig, loads: readonly Load[]): Remark[] {
  // Where nothing has been given out yet, one line says so, not one for each device.
  const list = unfed(rig);
  if (!list.length) return [];
  const none = loads.every((l) => l.takers.length === 0);
  return [
    {
      rule: 'power-none',
      severity: none ? 'advice' : 'fault',
      subjects: list.map((t) => t.device.id),
      about: 'unfed',
      what: none
        ? 'No device has been given an outlet yet.'
        : `${list.length === 1 ? `${at(list, 0).device.name} has` : `${list.length} devices have`} no power.`,
      why:
        `${list
          .slice(0, 8)
          .map((t) => t.device.name)
          .join(
            ', ',
          )}${list.length > 8 ? ` and ${list.length - 8} more` : ''} ${list.length === 1 ? 'is' : 'are'} ` +
        'plugged into no outlet. Under Build, Power, a plan gives them out.',
    },
  ];
}
