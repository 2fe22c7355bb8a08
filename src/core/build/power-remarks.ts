import { byKey } from '../graph';
import { at } from '../outcome';
import { type Fix, fixes, type Remark } from '../findings/finding';
import { supplyTotal } from '../rig/find';
import type { Device, Rig } from '../rig/schema';
import {
  HEADROOM,
  type Load,
  loadsOf,
  misfit,
  quarrel,
  type Taker,
  unfed,
  voltagesOf,
} from './power';
import { movedTo, outletBegins, outletWords, pluggedIn } from './power-moves';
import { allOf, anyOf } from '../units';

/**
 * What is wrong with power as it is plugged: dangers first. Nothing is said of devices without
 * power where the rig has no supply at all.
 */
export function powerRemarks(rig: Rig): Remark[] {
  const loads = loadsOf(rig);
  if (!loads.length) return [];
  return [
    ...loads.flatMap((l) => settingsOf(l, loads)),
    ...loads.flatMap((l) => wrongPlugs(l, loads)),
    ...loads.flatMap((l) => tooMuch(l, loads)),
    ...sagging(rig, loads),
    ...sharing(loads),
    ...without(rig, loads),
  ];
}

/** The voltages that an outlet is set to; of more than one, each is wrong for somebody. */
const settingsAt = (l: Load): number[] => [...new Set(l.settings.map((s) => s.volts))];

/** Devices that set one outlet to different voltages, and voltages that it cannot give. */
function settingsOf(l: Load, loads: readonly Load[]): Remark[] {
  const volts = settingsAt(l);
  const gives = voltagesOf(l.place.outlet);
  const subjects = [...l.settings.map((s) => s.device.id), l.place.supply.id];
  const about = `${l.place.supply.id} ${l.place.outlet.id} set`;
  const elsewhere = l.takers
    .filter((t) => t.device.supply?.volts !== undefined)
    .flatMap((t) => movedTo(t, loads));
  const ways = fixes([...elsewhere, ...l.settings.map((s) => unplugged(s.device))]);
  if (volts.length > 1)
    return [
      {
        rule: 'power-voltage',
        severity: 'danger',
        subjects,
        about,
        what: `${outletBegins(l)} is to be set to ${allOf(volts)} V at once.`,
        why:
          `${l.settings.map((s) => `${s.device.name} wants ${s.volts} V`).join(', ')}: an outlet gives one ` +
          'voltage, and whoever wants less than it is set to can be destroyed.',
        ...ways,
      },
    ];
  const [only] = volts;
  return only === undefined || gives.includes(only)
    ? []
    : [
        {
          rule: 'power-setting',
          severity: 'fault',
          subjects,
          about,
          what: `${outletBegins(l)} cannot be set to ${only} V.`,
          why: `It gives ${anyOf(gives)} V.`,
          ...ways,
        },
      ];
}

const unplugged = (device: Device): Fix => ({
  words: `Unplug ${device.name}`,
  edits: [{ edit: 'unplugPower', device: device.id }],
});

/** What is told of a device on an outlet that does not fit it. */
const MISFITS = {
  ac: ({ device, need, l, wants }: Misfit) => ({
    rule: 'power-ac' as const,
    severity: 'danger' as const,
    what: `${device.name} takes ${need.ac ? 'AC' : 'DC'} and gets ${need.ac ? 'DC' : 'AC'}.`,
    why: `It wants ${wants}; ${outletWords(l)} gives ${need.ac ? 'DC' : 'AC'}. The wrong one can destroy it.`,
  }),
  polarity: ({ device, need, l }: Misfit) => ({
    rule: 'power-polarity' as const,
    severity: 'danger' as const,
    what: `${device.name} gets its power the wrong way round.`,
    why:
      `Its plug is centre ${need.centre ?? 'negative'}, that of ${outletWords(l)} ` +
      `centre ${l.place.outlet.centre ?? 'negative'}. Reversed polarity can destroy it.`,
  }),
  'over-voltage': ({ device, need, l }: Misfit) => ({
    rule: 'power-voltage' as const,
    severity: 'danger' as const,
    what: `${device.name} gets ${l.volts} V and bears ${need.maxVolts ?? need.volts} V.`,
    why: `${outletBegins(l)} is set to ${l.volts} V. Over-voltage can destroy it.`,
  }),
  'under-voltage': ({ device, need, l }: Misfit) => ({
    rule: 'power-low' as const,
    severity: 'fault' as const,
    what: `${device.name} gets ${l.volts} V and wants ${need.volts} V.`,
    why: `${outletBegins(l)} gives too little for it to work as it should.`,
  }),
};

interface Misfit extends Taker {
  l: Load;
  /** What it wants, in words. */
  wants: string;
}

const wrongPlugs = (l: Load, loads: readonly Load[]): Remark[] =>
  l.takers.flatMap((taker): Remark[] => {
    const { device, need } = taker;
    const wrong = misfit(need, l.place.outlet, l.volts);
    // What an outlet gives that is set two ways at once is told with that.
    const isVoltage = wrong === 'over-voltage' || wrong === 'under-voltage';
    if (!wrong || (isVoltage && settingsAt(l).length > 1)) return [];
    const wants = `${need.volts}${need.maxVolts ? ` to ${need.maxVolts}` : ''} V ${need.ac ? 'AC' : 'DC'}`;
    const told = MISFITS[wrong]({ ...taker, l, wants });
    return [
      {
        ...told,
        subjects: [device.id, l.place.supply.id],
        about: `${device.id} ${wrong}`,
        ...fixes([
          ...movedTo(taker, loads),
          ...(told.severity === 'danger' ? [unplugged(device)] : []),
        ]),
      },
    ];
  });

function tooMuch(l: Load, loads: readonly Load[]): Remark[] {
  if (!l.takers.length || l.room >= 0) return [];
  const over = l.milliamps > l.place.outlet.milliamps;
  return [
    {
      rule: 'power-current',
      severity: over ? 'fault' : 'caution',
      subjects: [l.place.supply.id, ...l.takers.map((t) => t.device.id)],
      about: `${l.place.supply.id} ${l.place.outlet.id}`,
      what: `${outletBegins(l)} gives ${over ? 'too little current' : 'its current without headroom'}.`,
      why:
        l.takers.map((t) => `${t.device.name} ${t.need.milliamps} mA`).join(', ') +
        ' ' +
        (l.takers.length > 1 ? `are ${l.milliamps} mA together` : 'is what it takes') +
        '; ' +
        `the outlet gives ${l.place.outlet.milliamps} mA, and ${Math.round(HEADROOM * 100)} ` +
        '% of the load is kept free.',
      ...fixes(l.takers.flatMap((t) => movedTo(t, loads))),
    },
  ];
}

/** A supply whose outlets together ask for more than it gives. */
function sagging(rig: Rig, loads: readonly Load[]): Remark[] {
  const from = byKey(loads, (l) => l.place.supply.id);
  return rig.devices.flatMap((supply): Remark[] => {
    const total = supplyTotal(supply);
    const sum = (from.get(supply.id) ?? []).reduce((s, l) => s + l.milliamps, 0);
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
  // Another outlet of a shared return would change nothing.
  const alone = loads.filter((l) => l.place.outlet.isolated);
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
    // The worst of them decides.
    const isShort = ([a, b]: (typeof pairs)[number]) => plusOn(a) !== plusOn(b);
    const [a, b] = pairs.find(isShort) ?? at(pairs, 0);
    const plus = isShort([a, b]);
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
        ...fixes([...movedTo(a, alone), ...movedTo(b, alone)]),
      },
    ];
  });
}

const plusOn = ({ need }: Taker): boolean => need.positiveGround ?? false;

function without(rig: Rig, loads: readonly Load[]): Remark[] {
  // Where nothing has been given out yet, one line says so, not one for each device.
  const list = unfed(rig);
  if (!list.length) return [];
  const none = loads.every((l) => l.takers.length === 0);
  const shown = list.slice(0, 8).map((t) => t.device.name);
  const more = list.length - shown.length;
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
        `${allOf([...shown, ...(more > 0 ? [`${more} more`] : [])])} ` +
        `${list.length === 1 ? 'is' : 'are'} ` +
        'plugged into no outlet. Under Build, Power, a plan gives them out.',
      ...(none ? {} : fixes(pluggedIn(rig, list))),
    },
  ];
}
