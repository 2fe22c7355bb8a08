import type { Draft } from 'immer';
import { findKind, kindOf } from '../kinds';
import type { Refusal } from './apply';
import { deviceOf, leadOf, partnerEnd, partnerLead } from './find';
import type { Device, End, Lead, Rig } from './schema';

const typeFor = (rig: Rig, from: End): Lead['type'] => {
  const d = deviceOf(rig, from.device);
  const signal = d && kindOf(d.kind).jacks.find((j) => j.id === from.jack)?.signal;
  return signal === 'speaker' ? 'speaker' : signal === 'air' ? 'air' : 'instrument';
};

/** Adds a device and puts it into a lead; where the lead is half of a stereo pair and the device is stereo, into both. */
export function putDeviceInLead(rig: Draft<Rig>, device: Device, leadId: string, newLeads: string[]): Refusal {
  const kind = findKind(device.kind);
  if (!kind) return `There is no kind "${device.kind}".`;
  if (!kind.through) return `${kind.name} has no way through, so it cannot stand in a lead. Add it and connect its jacks.`;
  rig.devices.push(device);
  return splice(rig, device.id, leadId, newLeads);
}

/** Cuts a lead at a device that already stands in the rig, unconnected. The lead in front keeps its id and length. */
function splice(rig: Draft<Rig>, deviceId: string, leadId: string, newLeads: string[]): Refusal {
  const lead = leadOf(rig, leadId);
  if (!lead) return `There is no lead "${leadId}" any more.`;
  const way = kindOf(deviceOf(rig, deviceId)!.kind).through!;
  const partner = partnerLead(rig, lead);
  const cut = (l: Draft<Lead>, into: string, outOf: string, id: string) => {
    const to = { ...l.to };
    l.to = { device: deviceId, jack: into };
    const from = { device: deviceId, jack: outOf };
    rig.leads.splice(rig.leads.findIndex((x) => x.id === l.id) + 1, 0, { id, from, to, type: typeFor(rig, from), metres: Math.min(l.metres, 0.3) });
  };
  const otherIn = partnerEnd(rig, { device: deviceId, jack: way.in });
  const otherOut = partnerEnd(rig, { device: deviceId, jack: way.out });
  if (!partner || !otherIn || !otherOut) {
    cut(lead, way.in, way.out, newLeads[0]!);
    return;
  }
  const [left, right] = sideOf(rig, lead) === 'right' ? [partner, lead] : [lead, partner];
  cut(left, way.in, way.out, newLeads[0]!);
  cut(right, otherIn.jack, otherOut.jack, newLeads[1]!);
}

const sideOf = (rig: Rig, lead: Lead) => {
  const d = deviceOf(rig, lead.from.device);
  return d && kindOf(d.kind).jacks.find((j) => j.id === lead.from.jack)?.pair?.side;
};

/** Takes a device's leads away and joins what was in front with what came behind, side by side where there are two. */
function heal(rig: Draft<Rig>, deviceId: string): void {
  const kind = kindOf(deviceOf(rig, deviceId)!.kind);
  const into = rig.leads.filter((l) => l.to.device === deviceId);
  const outOf = rig.leads.filter((l) => l.from.device === deviceId);
  rig.leads = rig.leads.filter((l) => l.to.device !== deviceId && l.from.device !== deviceId);
  if (!kind.through) return;
  const pairOf = (jack: string) => kind.jacks.find((j) => j.id === jack)?.pair?.with;
  const ways = [[kind.through.in, kind.through.out], [pairOf(kind.through.in), pairOf(kind.through.out)]] as const;
  const isThrough = (jack: string) => ways.some(([, b]) => b === jack);
  for (const [a, b] of ways) {
    const before = into.find((l) => l.to.jack === a);
    // Where the main output is empty, the way goes on from whatever output is in use (a splitter's B).
    const after = outOf.find((l) => l.from.jack === b) ?? (a === kind.through.in && !outOf.some((l) => isThrough(l.from.jack)) ? outOf[0] : undefined);
    if (before && after && before.from.device !== after.to.device) {
      rig.leads.push({ ...before, to: { ...after.to }, type: typeFor(rig, before.from), metres: Math.max(before.metres, after.metres) });
    }
  }
}

/** Removes a device, its states and its leads, and heals the route. */
export function removeDevice(rig: Draft<Rig>, deviceId: string): Refusal {
  if (!deviceOf(rig, deviceId)) return `There is no device "${deviceId}" any more.`;
  heal(rig, deviceId);
  rig.devices = rig.devices.filter((d) => d.id !== deviceId).map((d) => d);
  for (const d of rig.devices) if (d.host === deviceId) delete d.host;
  for (const s of rig.sounds) if (Object.hasOwn(s.states, deviceId)) delete s.states[deviceId];
}

/** Takes a device out of its place, heals the route there, and puts it into another lead. */
export function moveDevice(rig: Draft<Rig>, deviceId: string, leadId: string, newLeads: string[]): Refusal {
  const device = deviceOf(rig, deviceId);
  if (!device) return `There is no device "${deviceId}" any more.`;
  if (!kindOf(device.kind).through) return `${device.name} has no way through, so it cannot be moved along the walk.`;
  const target = leadOf(rig, leadId);
  if (!target) return `There is no lead "${leadId}" any more.`;
  if (target.from.device === deviceId || target.to.device === deviceId) return `${device.name} is already there.`;
  heal(rig, deviceId);
  return splice(rig, deviceId, leadId, newLeads);
}

/** Turns a device into another kind: name, notes, place, matching settings, figures and leads carry over. */
export function replaceDevice(rig: Draft<Rig>, deviceId: string, kindId: string, name?: string): Refusal {
  const device = deviceOf(rig, deviceId);
  if (!device) return `There is no device "${deviceId}" any more.`;
  const was = kindOf(device.kind);
  const kind = findKind(kindId);
  if (!kind) return `There is no kind "${kindId}".`;
  const jack = (id: string, direction: 'in' | 'out', signal: string): string | undefined => {
    const main = direction === 'in' ? kind.through?.in : kind.through?.out;
    const wasMain = direction === 'in' ? was.through?.in : was.through?.out;
    const fits = (j?: string) => kind.jacks.some((x) => x.id === j && x.direction === direction && (x.signal === 'air') === (signal === 'air'));
    if (id === wasMain && fits(main)) return main;
    if (fits(id)) return id;
    const only = kind.jacks.filter((j) => j.direction === direction);
    return only.length === 1 && fits(only[0]!.id) ? only[0]!.id : undefined;
  };
  const signalOf = (id: string) => was.jacks.find((j) => j.id === id)?.signal ?? 'audio';
  const taken = new Set<string>();
  rig.leads = rig.leads.filter((l) => {
    for (const [end, direction] of [[l.to, 'in'], [l.from, 'out']] as const) {
      if (end.device !== deviceId) continue;
      const to = jack(end.jack, direction, signalOf(end.jack));
      if (!to || (taken.has(to) && !kind.jacks.find((j) => j.id === to)?.many)) return false;
      taken.add(to);
      end.jack = to;
    }
    return true;
  });
  const keep = (settings: Record<string, string | number | boolean> | undefined) => {
    for (const id of Object.keys(settings ?? {})) {
      const p = kind.parameters.find((x) => x.id === id);
      const old = was.parameters.find((x) => x.id === id);
      if (!p || p.type !== old?.type || (p.type === 'knob' && old.type === 'knob' && (p.min !== old.min || p.max !== old.max)) || p.type === 'choice') delete settings![id];
    }
  };
  device.kind = kindId;
  if (name) device.name = name;
  keep(device.settings);
  for (const s of rig.sounds) keep(s.states[deviceId]?.settings);
  for (const id of Object.keys(device.figures ?? {})) {
    const f = kind.figures.find((x) => x.id === id);
    const value = device.figures![id]!.value;
    if (!f || value < f.min || value > f.max) delete device.figures![id];
  }
}
