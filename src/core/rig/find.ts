import { CONTROL_SIGNALS, type Jack, kindOf, type Outlet } from '../kinds';
import { sourceDevice } from './source-id';
import {
  DEFAULT_PF_PER_METRE,
  type Device,
  type End,
  type Lead,
  type LeadType,
  type Rig,
  type Sound,
} from './schema';

const indexes = new WeakMap<readonly Device[], Map<string, Device>>();

/** A device by its id. Lists that can no longer change, as those of every rig that was edited, are indexed. */
export function deviceOf({ devices }: Pick<Rig, 'devices'>, id: string): Device | undefined {
  if (!Object.isFrozen(devices)) return devices.find((d) => d.id === id);
  let index = indexes.get(devices);
  if (!index) indexes.set(devices, (index = new Map(devices.map((d) => [d.id, d]))));
  return index.get(id);
}
export const leadOf = (rig: Rig, id: string): Lead | undefined =>
  rig.leads.find((l) => l.id === id);
export const soundOf = (rig: Rig, id: string): Sound | undefined =>
  rig.sounds.find((s) => s.id === id);
/**
 * The name of a device; of a source that is one of several signals of its device, with its own
 * name: "Tracks, click".
 */
export function nameOf(rig: Rig, id: string): string {
  const name = deviceOf(rig, sourceDevice(id))?.name;
  return name === undefined ? id : id.includes('/') ? `${name}, ${id.split('/')[1]}` : name;
}
export const jackOf = (device: Device, id: string): Jack | undefined =>
  kindOf(device.kind).jacks.find((j) => j.id === id);

/**
 * The outlets of a supply, or of any device that hands power on: its own where they were written in,
 * else those of its kind. Nothing where it feeds nobody.
 */
export const outletsOf = ({ gives, kind }: Device): Outlet[] | undefined =>
  gives?.outlets.map((o) => ({ ...o, label: o.label ?? `outlet ${o.id}` })) ?? kindOf(kind).outlets;

/** What all outlets of a supply give together at most, in mA; nothing where only the outlets limit it. */
export const supplyTotal = (device: Device): number | undefined =>
  device.gives ? device.gives.totalMilliamps : kindOf(device.kind).totalMilliamps;

export const leadFrom = (rig: Rig, device: string, jack: string): Lead | undefined =>
  rig.leads.find((l) => l.from.device === device && l.from.jack === jack);
export const leadInto = (rig: Rig, device: string, jack: string): Lead | undefined =>
  rig.leads.find((l) => l.to.device === device && l.to.jack === jack);

/** The other side's end of a stereo pair, if the jack has one. */
export function partnerEnd(rig: Rig, end: End): End | undefined {
  const device = deviceOf(rig, end.device);
  const other = device && jackOf(device, end.jack)?.pair?.with;
  return other ? { device: end.device, jack: other } : undefined;
}

/** The lead that runs beside this one as the other half of a stereo pair. */
export function partnerLead(rig: Rig, lead: Lead): Lead | undefined {
  const from = partnerEnd(rig, lead.from);
  const to = partnerEnd(rig, lead.to);
  if (!from || !to) return undefined;
  return rig.leads.find(
    (l) =>
      l.from.device === from.device &&
      l.from.jack === from.jack &&
      l.to.device === to.device &&
      l.to.jack === to.jack,
  );
}

/** A jack in words: "Amber Drive, out". */
export function endWords(rig: Rig, end: End): string {
  const device = deviceOf(rig, end.device);
  return device
    ? `${device.name}, ${jackOf(device, end.jack)?.label ?? end.jack}`
    : `${end.device}, ${end.jack}`;
}

/** Points of a device by the labels of their jacks: "in + return 1". */
export const jackLabels = (device: Device | undefined, points: readonly string[]): string =>
  [
    ...new Set(
      points.map(
        (p) =>
          (device &&
            kindOf(device.kind).jacks.find((j) => j.id === p || j.channels?.includes(p))?.label) ??
          p,
      ),
    ),
  ].join(' + ');

/** The host inside which a lead ends here: a block's own host, or the host whose inner point this is. */
export function insideOf(rig: Rig, end: End): string | undefined {
  const device = deviceOf(rig, end.device);
  return device && (jackOf(device, end.jack)?.inside ? device.id : device.host);
}

/** The type of lead that two jacks ask for. */
export function leadTypeFor(rig: Rig, from: End, to: End): LeadType {
  if (insideOf(rig, from) !== undefined) return 'inside';
  const [a, b] = [from, to].map((end) => {
    const device = deviceOf(rig, end.device);
    return device && jackOf(device, end.jack);
  });
  const either = (test: (j: Jack) => boolean) =>
    (a !== undefined && test(a)) || (b !== undefined && test(b));
  for (const type of CONTROL_SIGNALS) if (either((j) => j.signal === type)) return type;
  if (either((j) => j.signal === 'air')) return 'air';
  if (either((j) => j.signal === 'digital')) return 'digital';
  if (a?.signal === 'speaker') return 'speaker';
  if (a?.stereo && b?.stereo) return 'stereo';
  if (either((j) => j.stereo !== undefined || j.insert !== undefined)) return 'insert';
  return a?.connector === 'XLR' ? 'balanced' : 'instrument';
}

/** Everything that lives inside a host, blocks of blocks too. */
export function blocksOf(rig: Pick<Rig, 'devices'>, host: string): Device[] {
  const inside = rig.devices.filter((d) => d.host === host);
  return inside.flatMap((d) => [d, ...(d.id === host ? [] : blocksOf(rig, d.id))]);
}

/**
 * Capacitance of a whole lead, in pF: as it was measured, else its length times pF a metre (100
 * where none is stated).
 */
export const leadPf = (lead: Lead): number =>
  lead.pF ?? lead.metres * (lead.pfPerMetre ?? DEFAULT_PF_PER_METRE);

/** An order that does not hang on that of a file. */
export const byId = (a: { id: string }, b: { id: string }): number =>
  a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
