import { byKey } from '../graph';
import { at as entryAt, sure } from '../outcome';
import { kindOf, type Outlet, type PowerNeed } from '../kinds';
import { outletsOf, supplyTotal } from '../rig/find';
import type { Device, Rig } from '../rig/schema';

/** Share of its current that an outlet keeps free, unless said otherwise. */
export const HEADROOM = 0.2;

/** A device that takes power from a supply, with what it takes. */
export interface Taker {
  device: Device;
  need: PowerNeed;
}

/** An outlet of a supply in the rig. */
export interface Place {
  supply: Device;
  outlet: Outlet;
  totalMilliamps?: number;
}

/**
 * What a device takes: its kind's figures, with what was said of it; where its kind takes nothing,
 * what was said alone, at 9 V unless said otherwise. Blocks take none of their own.
 */
export function needOf({ host, kind, power }: Device): PowerNeed | undefined {
  if (host !== undefined) return undefined;
  const usual = kindOf(kind).power;
  if (usual) return { ...usual, ...power };
  const { milliamps } = power ?? {};
  return milliamps === undefined ? undefined : { volts: 9, ...power, milliamps };
}

/** Every device that has to be fed. */
export const takersOf = (rig: Rig): Taker[] =>
  rig.devices.flatMap((device) => {
    const need = needOf(device);
    return need ? [{ device, need }] : [];
  });

/** Every outlet there is. */
export const placesOf = (rig: Rig): Place[] =>
  rig.devices.flatMap((supply) =>
    (outletsOf(supply) ?? []).map((outlet) => ({
      supply,
      outlet,
      totalMilliamps: supplyTotal(supply),
    })),
  );

/** Whether a device that takes power has outlets itself: what hangs on them, it draws besides its own. */
export const handsOn = ({ device }: Taker, places: readonly Place[]): boolean =>
  places.some((p) => p.supply.id === device.id);

export const placeKey = (p: Place): string => `${p.supply.id} ${p.outlet.id}`;

/** Voltages that an outlet can be set to, its usual one first. */
export const voltagesOf = (o: Outlet): number[] => [o.volts, ...(o.also ?? [])];

/**
 * Why an outlet at a voltage must not, or cannot, feed a device; nothing where it fits. Current is
 * not looked at.
 */
export function misfit(
  need: PowerNeed,
  outlet: Outlet,
  volts: number,
): 'ac' | 'polarity' | 'over-voltage' | 'under-voltage' | undefined {
  if ((need.ac ?? false) !== (outlet.ac ?? false)) return 'ac';
  if (!need.ac && (need.centre ?? 'negative') !== (outlet.centre ?? 'negative')) return 'polarity';
  if (volts > (need.maxVolts ?? need.volts)) return 'over-voltage';
  return volts < need.volts ? 'under-voltage' : undefined;
}

/**
 * Whether two devices must not share a return: digital beside high gain, or one whose chassis is
 * its plus beside any other.
 */
export const quarrel = (a: PowerNeed, b: PowerNeed): boolean =>
  (a.noisy === true && b.sensitive === true) ||
  (b.noisy === true && a.sensitive === true) ||
  (a.positiveGround ?? false) !== (b.positiveGround ?? false);

/**
 * What hangs on one outlet as it is plugged now. Currents in mA; `room` is what is left under the
 * headroom, less than 0 where it is over.
 */
export interface Load {
  place: Place;
  volts: number;
  takers: Taker[];
  milliamps: number;
  room: number;
  /** The voltages that it is set to, by whom: more than one where its devices disagree. */
  settings: { device: Device; volts: number }[];
}

/**
 * Loads of every outlet. A device on an outlet that is not named hangs on the supply's first; one
 * that hands power on takes what hangs on it besides its own.
 */
export function loadsOf(rig: Rig, headroom = HEADROOM): Load[] {
  const takers = bySupply(handingOn(takersOf(rig)));
  return placesOf(rig).map((place) => {
    const here = (takers.get(place.supply.id) ?? []).filter(
      (t) =>
        (t.device.supply?.outlet ?? entryAt(sure(outletsOf(place.supply)), 0).id) ===
        place.outlet.id,
    );
    const milliamps = here.reduce((sum, t) => sum + t.need.milliamps, 0);
    const settings = here.flatMap(({ device }) =>
      device.supply?.volts === undefined ? [] : [{ device, volts: device.supply.volts }],
    );
    return {
      place,
      volts: settings[0]?.volts ?? place.outlet.volts,
      settings,
      takers: here,
      milliamps,
      room: place.outlet.milliamps - milliamps * (1 + headroom),
    };
  });
}

const bySupply = (takers: readonly Taker[]) => byKey(takers, (t) => t.device.supply?.device);

/** What devices take where some feed others: milliamps as the supply behind all of it gives them. */
function handingOn(takers: readonly Taker[]): Taker[] {
  const fed = bySupply(takers);
  const total = ({ device, need }: Taker, above: readonly string[]): number =>
    (fed.get(device.id) ?? [])
      .filter((t) => !above.includes(t.device.id))
      .reduce((sum, t) => sum + total(t, [...above, t.device.id]), need.milliamps);
  return takers.map((t) => ({
    ...t,
    need: { ...t.need, milliamps: total(t, [t.device.id]) },
  }));
}

/** Devices that nothing feeds. */
export const unfed = (rig: Rig): Taker[] => takersOf(rig).filter((t) => !t.device.supply);
