import type { Draft } from 'immer';
import type { Refusal } from './refusal';
import { deviceOf, outletsOf } from './find';
import { type Device, type Rig } from './schema';

/**
 * What hangs on an outlet that its supply no longer has is unplugged; a voltage that the outlet no
 * longer gives is forgotten.
 */
export function unplugLost(rig: Draft<Rig>, supply: Draft<Device>): void {
  const outlets = outletsOf(supply);
  for (const d of rig.devices) {
    if (d.supply?.device !== supply.id) continue;
    const outlet = outlets?.find((o, i) =>
      d.supply!.outlet === undefined ? i === 0 : o.id === d.supply!.outlet,
    );
    if (!outlet) delete d.supply;
    else if (
      d.supply.volts !== undefined &&
      ![outlet.volts, ...(outlet.also ?? [])].includes(d.supply.volts)
    )
      delete d.supply.volts;
  }
}

/**
 * Why a device cannot be plugged in at a voltage: an outlet gives only what it can be set to, and one
 * voltage to all that hang on it. What else does not fit is told as a finding.
 */
export function refusedOutlet(
  rig: Draft<Rig>,
  deviceId: string,
  { device: supplyId, outlet: at, volts }: NonNullable<Device['supply']>,
): Refusal {
  const supply = deviceOf(rig, supplyId);
  const outlets = supply && outletsOf(supply);
  const outlet = at === undefined ? outlets?.[0] : outlets?.find((o) => o.id === at);
  if (!supply || !outlet || volts === undefined) return undefined;
  const gives = [outlet.volts, ...(outlet.also ?? [])];
  const where = `${outlet.label} of ${supply.name}`;
  if (!gives.includes(volts)) return `${where} gives ${orList(gives)} V, not ${volts} V.`;
  const other = rig.devices.find(
    (d) =>
      d.id !== deviceId &&
      d.supply?.device === supplyId &&
      (d.supply.outlet ?? outlets?.[0]?.id) === outlet.id &&
      d.supply.volts !== undefined &&
      d.supply.volts !== volts,
  );
  return (
    other &&
    `${other.name} has set ${where} to ${other.supply?.volts} V; an outlet gives one voltage.`
  );
}

const orList = (values: readonly number[]): string =>
  values.length > 1 ? `${values.slice(0, -1).join(', ')} or ${values.at(-1)}` : values.join();
