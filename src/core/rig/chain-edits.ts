import { sure, at } from '../outcome';
import type { Draft } from 'immer';
import { findKind, type Kind, kindOf } from '../kinds';
import type { Refusal } from './refusal';
import { blocksOf, deviceOf, insideOf, leadOf, leadTypeFor, partnerEnd, partnerLead } from './find';
import { freshId } from './fresh-id';
import { CONTROL_LEADS } from './lead-types';
import type { Device, End, Lead, Rig } from './schema';

/**
 * The type that a lead takes on when its ends change; one that was chosen by hand stays where it
 * still fits.
 */
const typeFor = (rig: Rig, from: End, to: End, was?: Lead['type']): Lead['type'] => {
  const needed = leadTypeFor(rig, from, to);
  return needed === 'instrument' && (was === 'balanced' || was === 'stereo') ? was : needed;
};

/** Adds a device; a host comes with its inner points linked straight through. */
export function addDevice(rig: Draft<Rig>, device: Device): Refusal {
  // A copy: what an edit carries may be frozen, and where it goes may change what holds it.
  rig.devices.push({ ...device });
  linkThrough(rig, device.id, findKind(device.kind));
}

/** Links the inner points of a host straight through, as it comes. */
export function linkThrough(rig: Draft<Rig>, host: string, kind: Kind | undefined): void {
  for (const [from, to] of kind?.hosts?.links ?? [])
    rig.leads.push({
      id: freshId(
        `${host}-link`,
        rig.leads.map((l) => l.id),
      ),
      from: { device: host, jack: from },
      to: { device: host, jack: to },
      type: 'inside',
      metres: 0,
    });
}

/**
 * Adds a device and puts it into a lead; where the lead is half of a stereo pair and the device is
 * stereo, into both.
 */
export function putDeviceInLead(
  rig: Draft<Rig>,
  device: Device,
  leadId: string,
  newLeads: string[],
): Refusal {
  const kind = findKind(device.kind);
  if (!kind) return `There is no kind "${device.kind}".`;
  if (!kind.through)
    return `${kind.name} has no way through, so it cannot stand in a lead. Add it and connect its jacks.`;
  const refusal = addDevice(rig, device);
  if (refusal) return refusal;
  return splice(rig, device.id, leadId, newLeads);
}

/**
 * Cuts a lead at a device that already stands in the rig, unconnected. The lead in front keeps its
 * id and length.
 */
export function splice(
  rig: Draft<Rig>,
  deviceId: string,
  leadId: string,
  newLeads: string[],
): Refusal {
  const lead = leadOf(rig, leadId);
  if (!lead) return `There is no lead "${leadId}" any more.`;
  const device = sure(deviceOf(rig, deviceId));
  const way = kindOf(device.kind).through!;
  const host = insideOf(rig, lead.from);
  if (host !== undefined && !kindOf(device.kind).block && !kindOf(device.kind).hosts)
    return `${device.name} cannot live inside ${sure(deviceOf(rig, host)).name}: it has no block form.`;
  if (host !== undefined) {
    delete device.at;
    delete device.rack;
  }
  if (host === undefined) delete device.host;
  else {
    device.host = host;
    delete device.supply;
    unplugControl(rig, deviceId);
  }
  const partner = partnerLead(rig, lead);
  const cut = (l: Draft<Lead>, into: string, outOf: string, id: string) => {
    const to = { ...l.to };
    const was = l.type;
    l.to = { device: deviceId, jack: into };
    const from = { device: deviceId, jack: outOf };
    l.type = typeFor(rig, l.from, l.to, was);
    const conductor = l.conductor;
    if (l.type !== 'insert') delete l.conductor;
    const type = typeFor(rig, from, to, was);
    rig.leads.splice(rig.leads.findIndex((x) => x.id === l.id) + 1, 0, {
      id,
      from,
      to,
      type,
      metres: type === 'inside' ? 0 : Math.min(l.metres, 0.3),
      ...(type === 'insert' && conductor && { conductor }),
    });
  };
  const otherIn = partnerEnd(rig, { device: deviceId, jack: way.in });
  const otherOut = partnerEnd(rig, { device: deviceId, jack: way.out });
  if (!partner || !otherIn || !otherOut) {
    cut(lead, way.in, way.out, at(newLeads, 0));
    return;
  }
  const [left, right] = sideOf(rig, lead) === 'right' ? [partner, lead] : [lead, partner];
  cut(left, way.in, way.out, at(newLeads, 0));
  cut(right, otherIn.jack, otherOut.jack, at(newLeads, 1));
}

const sideOf = (rig: Rig, lead: Lead) => {
  const d = deviceOf(rig, lead.from.device);
  return d && kindOf(d.kind).jacks.find((j) => j.id === lead.from.jack)?.pair?.side;
};

/** Messages go on where a device is taken out: from where they came in to where they left. */
function healMessages(
  rig: Draft<Rig>,
  kind: Kind,
  into: readonly Lead[],
  outOf: readonly Lead[],
): void {
  const has = (end: End, ways: readonly string[]) =>
    ways.includes(kind.jacks.find((j) => j.id === end.jack)?.midi ?? '');
  const [told, tells] = [
    into.find((l) => has(l.to, ['in'])),
    outOf.find((l) => has(l.from, ['out', 'thru'])),
  ];
  if (told && tells && told.from.device !== tells.to.device)
    rig.leads.push({ ...told, to: { ...tells.to }, metres: Math.max(told.metres, tells.metres) });
}

/**
 * A block has no jacks for messages and controls: what was plugged into them is taken out, and
 * messages go on behind.
 */
export function unplugControl(rig: Draft<Rig>, deviceId: string): void {
  const isControl = (l: Lead) =>
    CONTROL_LEADS.includes(l.type) && (l.from.device === deviceId || l.to.device === deviceId);
  const taken = rig.leads.filter(isControl);
  if (!taken.length) return;
  rig.leads = rig.leads.filter((l) => !isControl(l));
  healMessages(
    rig,
    kindOf(sure(deviceOf(rig, deviceId)).kind),
    taken.filter((l) => l.to.device === deviceId),
    taken.filter((l) => l.from.device === deviceId),
  );
}

/**
 * Takes a device's leads away and joins what was in front with what came behind, side by side where
 * there are two. `only its place`: what does not lead on along its way stays plugged, messages,
 * controls, and outputs to somewhere else.
 */
export function heal(
  rig: Draft<Rig>,
  deviceId: string,
  what: 'all' | 'only its place' = 'all',
): void {
  const kind = kindOf(sure(deviceOf(rig, deviceId)).kind);
  const into = rig.leads.filter((l) => l.to.device === deviceId);
  const outOf = rig.leads.filter((l) => l.from.device === deviceId);
  if (what === 'all') {
    rig.leads = rig.leads.filter((l) => l.to.device !== deviceId && l.from.device !== deviceId);
    healMessages(rig, kind, into, outOf);
  }
  if (!kind.through) return;
  const pairOf = (jack: string) => kind.jacks.find((j) => j.id === jack)?.pair?.with;
  const ways = [
    [kind.through.in, kind.through.out],
    [pairOf(kind.through.in), pairOf(kind.through.out)],
  ] as const;
  const isThrough = (jack: string) => ways.some(([, b]) => b === jack);
  for (const [a, b] of ways) {
    const before = into.find((l) => l.to.jack === a);
    // Where the main output is empty, the way goes on from whatever output is in use (a splitter's B).
    const after =
      outOf.find((l) => l.from.jack === b) ??
      (a === kind.through.in && !outOf.some((l) => isThrough(l.from.jack))
        ? outOf.find((l) => !CONTROL_LEADS.includes(l.type))
        : undefined);
    const isWay = a === kind.through.in || (before && after);
    if (what !== 'all' && isWay) rig.leads = rig.leads.filter((l) => l !== before && l !== after);
    if (before && after && before.from.device !== after.to.device) {
      const type = typeFor(rig, before.from, after.to, before.type);
      const conductor = before.conductor ?? after.conductor;
      const { conductor: _conductor, ...rest } = before;
      rig.leads.push({
        ...rest,
        to: { ...after.to },
        type,
        metres: type === 'inside' ? 0 : Math.max(before.metres, after.metres),
        ...(type === 'insert' && conductor && { conductor }),
      });
    }
  }
}

/** Removes a device, its states and its leads, and heals the route. */
export function removeDevice(rig: Draft<Rig>, deviceId: string): Refusal {
  if (!deviceOf(rig, deviceId)) return `There is no device "${deviceId}" any more.`;
  heal(rig, deviceId);
  // What lives inside goes with its host.
  const gone = new Set([deviceId, ...blocksOf(rig, deviceId).map((d) => d.id)]);
  rig.devices = rig.devices.filter((d) => !gone.has(d.id));
  rig.leads = rig.leads.filter((l) => !gone.has(l.from.device) && !gone.has(l.to.device));
  for (const d of rig.devices) if (d.supply && gone.has(d.supply.device)) delete d.supply;
  for (const d of rig.devices)
    if (d.mains?.from !== undefined && gone.has(d.mains.from)) delete d.mains.from;
  for (const c of rig.cases ?? [])
    if (c.holds.some((id) => gone.has(id))) c.holds = c.holds.filter((id) => !gone.has(id));
  if (rig.stage?.spots.some((s) => gone.has(s.id)))
    rig.stage.spots = rig.stage.spots.filter((s) => !gone.has(s.id));
  for (const s of rig.sounds) {
    for (const id of gone) if (Object.hasOwn(s.states, id)) delete s.states[id];
    if (s.sends?.some((x) => gone.has(x.from) || (x.to !== undefined && gone.has(x.to))))
      s.sends = s.sends.filter((x) => !gone.has(x.from) && (x.to === undefined || !gone.has(x.to)));
  }
  for (const c of rig.controls ?? []) c.assigns = c.assigns.filter((a) => !gone.has(a.device));
  for (const song of rig.songs ?? []) {
    for (const part of [song, ...song.sections])
      for (const id of gone)
        if (part.states && Object.hasOwn(part.states, id)) delete part.states[id];
  }
}

/**
 * Takes a device out of its place, heals the route there, and puts it into another lead. Its other
 * leads stay plugged, unless it goes into a host or out of one.
 */
export function moveDevice(
  rig: Draft<Rig>,
  deviceId: string,
  leadId: string,
  newLeads: string[],
): Refusal {
  const device = deviceOf(rig, deviceId);
  if (!device) return `There is no device "${deviceId}" any more.`;
  if (!kindOf(device.kind).through)
    return `${device.name} has no way through, so it cannot be moved along the walk.`;
  const target = leadOf(rig, leadId);
  if (!target) return `There is no lead "${leadId}" any more.`;
  if (target.from.device === deviceId || target.to.device === deviceId)
    return `${device.name} is already there.`;
  if (blocksOf(rig, deviceId).some((b) => b.id === target.from.device || b.id === target.to.device))
    return `${device.name} cannot be moved into itself.`;
  const isCrossing = insideOf(rig, target.from) !== device.host;
  heal(rig, deviceId, isCrossing ? 'all' : 'only its place');
  return splice(rig, deviceId, leadId, newLeads);
}
