import type { Fix } from '../findings/finding';
import type { Edit } from '../rig/edits';
import { supplyTotal } from '../rig/find';
import type { Device, Rig } from '../rig/schema';
import { HEADROOM, type Load, loadsOf, misfit, quarrel, type Taker, voltagesOf } from './power';

/** An outlet in words: "outlet 2 of Pedal supply". */
export const outletWords = (l: Load): string => `${l.place.outlet.label} of ${l.place.supply.name}`;

/** The same at the beginning of a sentence. */
export const outletBegins = (l: Load): string =>
  outletWords(l).replace(/^\p{Ll}/u, (letter) => letter.toUpperCase());

const idOf = (t: Taker): string => t.device.id;

/** Who shares its return with whatever hangs on an outlet: all on the supply's outlets that are not isolated. */
const returnsWith = (l: Load, loads: readonly Load[]): Taker[] =>
  l.place.outlet.isolated
    ? l.takers
    : loads
        .filter((x) => x.place.supply.id === l.place.supply.id && !x.place.outlet.isolated)
        .flatMap((x) => x.takers);

const sumOf = (takers: readonly Taker[]): number =>
  takers.reduce((sum, t) => sum + t.need.milliamps, 0);

/** Whether a supply takes its own power from a device, straight or by way of others: that cannot hang on it. */
function feeds(device: string, supply: Device, loads: readonly Load[]): boolean {
  const seen = new Set<string>();
  let at: Device | undefined = supply;
  while (at && !seen.has(at.id)) {
    seen.add(at.id);
    const by: string | undefined = at.supply?.device;
    if (by === device) return true;
    at = loads.find((l) => l.place.supply.id === by)?.place.supply;
  }
  return false;
}

/**
 * At which voltage an outlet feeds a device as it should be fed, beside all that hang there but for those
 * that `leave`; nothing where it cannot.
 */
function voltsFor(
  taker: Taker,
  l: Load,
  loads: readonly Load[],
  leave: readonly string[],
): number | undefined {
  const { device, need } = taker;
  const { supply, outlet } = l.place;
  const stays = (t: Taker): boolean => idOf(t) !== device.id && !leave.includes(idOf(t));
  const beside = l.takers.filter(stays);
  if (supply.id === device.id || feeds(device.id, supply, loads)) return undefined;
  if (returnsWith(l, loads).some((t) => stays(t) && quarrel(t.need, need))) return undefined;
  if ((sumOf(beside) + need.milliamps) * (1 + HEADROOM) > outlet.milliamps) return undefined;
  const total = supplyTotal(supply);
  const fed = loads.filter((x) => x.place.supply.id === supply.id).flatMap((x) => x.takers);
  if (total !== undefined && sumOf(fed.filter(stays)) + need.milliamps > total) return undefined;
  // Where others stay it stays set as it is.
  const volts = beside.length ? [l.volts] : voltagesOf(outlet);
  return volts.find((v) => !misfit(need, outlet, v));
}

/** A device plugged into an outlet at a voltage. */
const plugged = ({ device }: Taker, { place }: Load, volts: number): Edit => ({
  edit: 'setDevice',
  device: device.id,
  supply: {
    device: place.supply.id,
    outlet: place.outlet.id,
    ...(volts !== place.outlet.volts && { volts }),
  },
});

/**
 * Ways to put a device where it is fed as it should be: on an outlet that is free, or its own at another
 * voltage; else in exchange with another one, so that nobody shares; else beside others whose outlet has room.
 */
export function movedTo(taker: Taker, loads: readonly Load[]): Fix[] {
  const isFree = (l: Load) => l.takers.every((t) => idOf(t) === idOf(taker));
  const isOwn = (l: Load) => l.takers.some((t) => idOf(t) === idOf(taker));
  const alone = firstOf(taker, loads.filter(isFree), loads);
  return alone.length
    ? alone
    : [
        ...exchanged(taker, loads),
        ...firstOf(
          taker,
          loads.filter((l) => !isFree(l) && !isOwn(l)),
          loads,
        ),
      ];
}

/** A device on the first of some outlets that feeds it as it should be fed. */
function firstOf(taker: Taker, some: readonly Load[], loads: readonly Load[]): Fix[] {
  for (const l of some) {
    const volts = voltsFor(taker, l, loads, []);
    if (volts === undefined) continue;
    const set = volts === l.place.outlet.volts ? '' : `, at ${volts} V`;
    const others = l.takers.filter((t) => idOf(t) !== idOf(taker)).map((t) => t.device.name);
    const beside = others.length ? `, beside ${others.join(', ')}` : '';
    return [
      {
        words: `Plug ${taker.device.name} into ${outletWords(l)}${set}${beside}`,
        edits: [plugged(taker, l, volts)],
      },
    ];
  }
  return [];
}

/** A device exchanged with another one, where each is fed as it should be in the other's place. */
function exchanged(taker: Taker, loads: readonly Load[]): Fix[] {
  const own = loads.find((l) => l.takers.some((t) => idOf(t) === idOf(taker)));
  if (!own) return [];
  for (const l of loads.filter((x) => x !== own))
    for (const other of l.takers.filter((t) => !t.device.supply?.pinned)) {
      const leave = [idOf(taker), idOf(other)];
      const [there, here] = [voltsFor(taker, l, loads, leave), voltsFor(other, own, loads, leave)];
      if (there === undefined || here === undefined) continue;
      return [
        {
          words: `Exchange the plugs of ${taker.device.name} and ${other.device.name}`,
          edits: [plugged(taker, l, there), plugged(other, own, here)],
        },
      ];
    }
  return [];
}

/** Devices plugged in one after the other, each where it is fed as it should be; nothing where one is left over. */
export function pluggedIn(rig: Rig, takers: readonly Taker[]): Fix[] {
  const made: Fix[] = [];
  let now = rig;
  for (const taker of takers) {
    const [way] = movedTo(taker, loadsOf(now));
    const [edit] = way?.edits ?? [];
    if (!way || edit?.edit !== 'setDevice') return [];
    made.push(way);
    const { supply } = edit;
    now = {
      ...now,
      devices: now.devices.map((d) => (d.id === idOf(taker) && supply ? { ...d, supply } : d)),
    };
  }
  const [only] = made;
  if (!only) return [];
  return [
    {
      words: made.length === 1 ? only.words : `Plug all ${made.length} into outlets with room`,
      edits: made.flatMap((m) => m.edits),
    },
  ];
}
