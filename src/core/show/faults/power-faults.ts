import { misfit, needOf, placesOf, voltagesOf } from '../../build/power';
import { kindOf } from '../../kinds';
import { deviceOf, nameOf, outletsOf } from '../../rig/find';
import type { Device, Rig } from '../../rig/schema';
import { placeOf, PLACE_NAMES, PLACES } from '../../rig/stands-where';
import { noisyAt } from './changes';
import { dead, needsPower, withStages } from './device-faults';
import { type Fault, REACH_SECONDS, type Sort, type Spare, type Whole } from './fault';
import { boxes, soundOuts } from './look';
import { allOf } from '../../units';

/** How much lower everything clips on a supply that sags, in dB. */
const SAG_DB = 6;

/** Power: outlets, supplies, strips and conditioners, dead or sagging, with all that hangs on them. */
export const powerFaults: Sort = {
  id: 'power',
  words: 'Power',
  odds:
    'An outlet, a supply or a conditioner fails in 0.4 of 1000 shows, a power lead in 1, a strip ' +
    'or plug of the mains in 0.5.',
  expand: ({ rig }) => [...outlets(rig), ...feeders(rig), ...strips(rig)],
};

/** All that has no power when some devices have none: what they feed, and so on. */
export function darkWith(rig: Rig, first: readonly string[]): string[] {
  const dark = new Set(first);
  for (let before = -1; before !== dark.size;) {
    before = dark.size;
    for (const d of rig.devices)
      if (
        (d.supply && dark.has(d.supply.device)) ||
        (d.mains?.from !== undefined && dark.has(d.mains.from)) ||
        (d.host !== undefined && dark.has(d.host))
      )
        dark.add(d.id);
  }
  return [...dark];
}

const goDark = (whole: Whole, devices: readonly string[]): Whole =>
  dead(
    whole,
    boxes(whole.rig)
      .filter((d) => devices.includes(d.id) && needsPower(d))
      .map((d) => d.id),
  );

const named = (rig: Rig, ids: readonly string[]): string => {
  const names = ids.map((id) => nameOf(rig, id));
  const more = names.length - 3;
  return allOf(more > 0 ? [...names.slice(0, 3), `${more} more`] : names);
};

/** Each outlet that feeds something: no voltage, or too little of it. */
function outlets(rig: Rig): Fault[] {
  return rig.devices.flatMap((supply) =>
    (outletsOf(supply) ?? []).flatMap((outlet): Fault[] => {
      const fed = rig.devices.filter(
        (d) => d.supply?.device === supply.id && d.supply.outlet === outlet.id,
      );
      if (!fed.length) return [];
      const dark = darkWith(
        rig,
        fed.map((d) => d.id),
      );
      const where = placeOf(supply);
      const label = `${outlet.label} of ${supply.name}`;
      const base = {
        sort: 'power' as const,
        subjects: [supply.id, ...fed.map((d) => d.id)],
        otherOutlet: fed.map((d) => d.id),
        where,
      };
      const other = freeOutletFor(rig, fed);
      return [
        {
          ...base,
          id: `outlet dead ${supply.id} ${outlet.id}`,
          words: `${label}, or the power lead in it, is dead: ${named(rig, dark)} without power`,
          perThousand: 1.4,
          dark,
          mend: other
            ? {
                words: `plug it into ${other}, with a spare power lead`,
                seconds: REACH_SECONDS[where] + 20,
                spare: { is: 'part', words: 'power lead' },
              }
            : {
                words: `no outlet here is free that fits: take the spare for ${supply.name}`,
                seconds: REACH_SECONDS[where] + 180,
                spare: { is: 'device', kind: supply.kind },
              },
          change: (w) => goDark(w, dark),
        },
        {
          ...base,
          id: `outlet sags ${supply.id} ${outlet.id}`,
          words: `${label} gives too little: ${named(
            rig,
            fed.map((d) => d.id),
          )} ${fed.length === 1 ? 'hums and clips' : 'hum and clip'} early`,
          perThousand: 0.3,
          dark: [],
          mend: other
            ? { words: `plug it into ${other}`, seconds: REACH_SECONDS[where] + 20 }
            : {
                words: `no outlet here is free that fits: take the spare for ${supply.name}`,
                seconds: REACH_SECONDS[where] + 180,
                spare: { is: 'device', kind: supply.kind },
              },
          change: (w) => fed.reduce((v, d) => sagging(v, d), w),
        },
      ];
    }),
  );
}

/** A free outlet that suits all of some devices by voltage, polarity and current; nothing where there is none. */
export function freeOutletFor(rig: Rig, fed: readonly Device[]): string | undefined {
  const needs = fed.flatMap((d) => needOf(d) ?? []);
  const free = placesOf(rig).find(
    ({ supply, outlet }) =>
      !rig.devices.some((d) => d.supply?.device === supply.id && d.supply.outlet === outlet.id) &&
      needs.reduce((sum, n) => sum + n.milliamps, 0) <= outlet.milliamps &&
      voltagesOf(outlet).some((v) => needs.every((n) => misfit(n, outlet, v) === undefined)),
  );
  return free && `${free.outlet.label} of ${free.supply.name}`;
}

/** A device on too little voltage: it clips earlier, and hum of the supply comes with it. */
function sagging(whole: Whole, device: Device): Whole {
  const clipped = withStages(whole, device.id, 'sagging', (s) => ({
    ...s,
    ceiling: { ...s.ceiling, dbu: s.ceiling.dbu - SAG_DB },
  }));
  const [out] = soundOuts(device);
  return out ? noisyAt(clipped, device.id, out.id, 'hum') : clipped;
}

/** Supplies, adapters, strips and conditioners that feed something. */
function feeders(rig: Rig): Fault[] {
  return rig.devices.flatMap((device): Fault[] => {
    const kind = kindOf(device.kind);
    const dark = darkWith(rig, [device.id]);
    if (kind.job !== 'supply' || dark.length < 2) return [];
    const where = placeOf(device);
    return [
      {
        id: `supply dead ${device.id}`,
        sort: 'power',
        words: `${device.name} is dead: ${named(
          rig,
          dark.filter((d) => d !== device.id),
        )} without power`,
        subjects: [device.id],
        perThousand: kind.id === 'supply-adapter' || kind.id === 'supply-battery' ? 1 : 0.4,
        dark,
        where,
        mend: {
          words: `look at its fuse and mains plug first; then put the spare in place of ${device.name}`,
          seconds: REACH_SECONDS[where] + 180,
          spare: { is: 'device', kind: device.kind },
        },
        change: (w) => goDark(w, dark),
      },
    ];
  });
}

const MAINS_LEAD: Spare = { is: 'part', words: 'mains lead' };

/** What takes its mains from the same place with no conditioner between: a strip or a socket there. */
function strips(rig: Rig): Fault[] {
  const fromWall = boxes(rig).filter(
    (d) => kindOf(d.kind).mains && (d.mains?.from === undefined || !deviceOf(rig, d.mains.from)),
  );
  return PLACES.flatMap((where): Fault[] => {
    const here = fromWall.filter((d) => placeOf(d) === where).map((d) => d.id);
    if (!here.length) return [];
    const dark = darkWith(rig, here);
    const one = here.length === 1;
    return [
      {
        id: `strip dead ${where}`,
        sort: 'power',
        words: one
          ? `the mains lead or the socket of ${named(rig, here)} is dead`
          : `the mains at ${PLACE_NAMES[where]} is gone: ${named(rig, dark)} without power`,
        subjects: here,
        perThousand: 0.5,
        dark,
        where,
        mend: {
          words:
            'try another socket and another mains lead; what lies in the wall is for the house electrician',
          seconds: REACH_SECONDS[where] + 30,
          spare: MAINS_LEAD,
        },
        change: (w) => goDark(w, dark),
      },
      ...(one
        ? []
        : here.map((id): Fault => {
            const alone = darkWith(rig, [id]);
            return {
              id: `mains lead ${id}`,
              sort: 'power',
              words: `the mains lead of ${nameOf(rig, id)} is out or dead`,
              subjects: [id],
              perThousand: 0.8,
              dark: alone,
              where,
              mend: {
                words: `push the mains lead of ${nameOf(rig, id)} home, then try another`,
                seconds: REACH_SECONDS[where] + 20,
                spare: MAINS_LEAD,
              },
              change: (w) => goDark(w, alone),
            };
          })),
    ];
  });
}
