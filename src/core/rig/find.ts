import { type Jack, kindOf } from '../kinds';
import type { Device, End, Lead, Rig, Sound } from './schema';

export const deviceOf = (rig: Rig, id: string): Device | undefined => rig.devices.find((d) => d.id === id);
export const leadOf = (rig: Rig, id: string): Lead | undefined => rig.leads.find((l) => l.id === id);
export const soundOf = (rig: Rig, id: string): Sound | undefined => rig.sounds.find((s) => s.id === id);
export const nameOf = (rig: Rig, id: string): string => deviceOf(rig, id)?.name ?? id;
export const jackOf = (device: Device, id: string): Jack | undefined => kindOf(device.kind).jacks.find((j) => j.id === id);

export const leadFrom = (rig: Rig, device: string, jack: string): Lead | undefined => rig.leads.find((l) => l.from.device === device && l.from.jack === jack);
export const leadInto = (rig: Rig, device: string, jack: string): Lead | undefined => rig.leads.find((l) => l.to.device === device && l.to.jack === jack);

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
  return rig.leads.find((l) => l.from.device === from.device && l.from.jack === from.jack && l.to.device === to.device && l.to.jack === to.jack);
}

/** A jack in words: "Amber Drive, out". */
export function endWords(rig: Rig, end: End): string {
  const device = deviceOf(rig, end.device);
  return device ? `${device.name}, ${jackOf(device, end.jack)?.label ?? end.jack}` : `${end.device}, ${end.jack}`;
}
