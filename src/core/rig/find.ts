import { byKey } from '../graph';
import { CONTROL_SIGNALS, type Jack, kindOf, type Outlet } from '../kinds';
import { sourceDevice } from './source-id';
import type { Device, End, Lead, LeadType, Rig, Sound } from './schema';
import { DEFAULT_PF_PER_METRE } from './typical-leads';

/** What is asked of a list again and again; kept for lists that can no longer change. */
class Index<T, I> {
  private readonly known = new WeakMap<readonly T[], I>();
  constructor(private readonly make: (list: readonly T[]) => I) {}

  /** The index of a list, if one is worth having: a list that may still change has none. */
  of(list: readonly T[]): I | undefined {
    if (!Object.isFrozen(list)) return undefined;
    let index = this.known.get(list);
    if (!index) this.known.set(list, (index = this.make(list)));
    return index;
  }
}

const devicesById = new Index((devices: readonly Device[]) => mapOf(devices));
const leadsById = new Index((leads: readonly Lead[]) => mapOf(leads));
const leadsByEnd = new Index((leads: readonly Lead[]) => ({
  from: byKey(leads, (l) => l.from.device),
  to: byKey(leads, (l) => l.to.device),
}));

const devicesByHost = new Index((devices: readonly Device[]) =>
  byKey(
    devices.filter((d) => d.host !== undefined),
    (d) => d.host,
  ),
);

/** The first of each id: a list that was never checked may hold one twice. */
const mapOf = <T extends { id: string }>(list: readonly T[]): Map<string, T> =>
  new Map(list.toReversed().map((x) => [x.id, x]));

/**
 * Lets a rig's devices and leads be found by their ids and ends without looking through all: from
 * here on its lists cannot change, as those of every rig that was edited cannot.
 */
export function settle({ devices, leads }: Pick<Rig, 'devices' | 'leads'>): void {
  Object.freeze(devices);
  Object.freeze(leads);
}

/** A device by its id. */
export function deviceOf({ devices }: Pick<Rig, 'devices'>, id: string): Device | undefined {
  const index = devicesById.of(devices);
  return index ? index.get(id) : devices.find((d) => d.id === id);
}
export function leadOf({ leads }: Pick<Rig, 'leads'>, id: string): Lead | undefined {
  const index = leadsById.of(leads);
  return index ? index.get(id) : leads.find((l) => l.id === id);
}

/** Leads that leave a device, or that end in it, in the order of the rig. */
export const leadsFrom = ({ leads }: Pick<Rig, 'leads'>, device: string): readonly Lead[] =>
  endingAt(leads, 'from', device);
export const leadsInto = ({ leads }: Pick<Rig, 'leads'>, device: string): readonly Lead[] =>
  endingAt(leads, 'to', device);

function endingAt(leads: readonly Lead[], side: 'from' | 'to', device: string): readonly Lead[] {
  const index = leadsByEnd.of(leads);
  return index ? (index[side].get(device) ?? []) : leads.filter((l) => l[side].device === device);
}

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
  leadsFrom(rig, device).find((l) => l.from.jack === jack);
export const leadInto = (rig: Rig, device: string, jack: string): Lead | undefined =>
  leadsInto(rig, device).find((l) => l.to.jack === jack);

/** Whether a lead is in a jack of a device; without a jack, whether one is in any of them. */
export const isPlugged = (rig: Rig, device: string, jack?: string): boolean =>
  leadsFrom(rig, device).some((l) => jack === undefined || l.from.jack === jack) ||
  leadsInto(rig, device).some((l) => jack === undefined || l.to.jack === jack);

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
  return leadsFrom(rig, from.device).find(
    (l) => l.from.jack === from.jack && l.to.device === to.device && l.to.jack === to.jack,
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
  const index = devicesByHost.of(rig.devices);
  const inside = index ? (index.get(host) ?? []) : rig.devices.filter((d) => d.host === host);
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
