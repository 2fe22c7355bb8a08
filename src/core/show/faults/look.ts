import { type Jack, kindOf, type Loop } from '../../kinds';
import { leadCalled } from '../../build';
import { deviceOf, jackOf, nameOf } from '../../rig/find';
import { CONTROL_LEADS } from '../../rig/lead-types';
import type { Device, End, Lead, Rig } from '../../rig/schema';
import { type Place, PLACES, placeOf } from '../../rig/stands-where';

/** Leads that carry sound in metal or as a digital signal between two boxes. */
export const soundLeads = (rig: Rig): Lead[] =>
  rig.leads.filter(
    (l) => l.type !== 'air' && l.type !== 'inside' && !CONTROL_LEADS.includes(l.type),
  );

/** A lead as it is spoken of: by what is written on its ends, and where they are: "lead W04, Guitar to Tuner". */
export const leadWords = (rig: Rig, lead: Lead): string =>
  `lead ${leadCalled(rig, lead)}, ${nameOf(rig, lead.from.device)} to ${nameOf(rig, lead.to.device)}`;

const placeOfId = (rig: Rig, id: string): Place => {
  const device = deviceOf(rig, id);
  return device ? placeOf(device) : 'floor';
};

/** Where one gets at a lead: at that of its ends which moves most. */
export const placeOfLead = (rig: Rig, lead: Lead): Place => {
  const places = [lead.from, lead.to].map((e) => placeOfId(rig, e.device));
  return PLACES.find((p) => places.includes(p)) ?? 'floor';
};

/** Devices of which a lead can be pulled, so not those that live inside another. */
export const boxes = (rig: Rig): Device[] => rig.devices.filter((d) => d.host === undefined);

/** Jacks by which sound leaves a device. */
export const soundOuts = (device: Device): Jack[] =>
  kindOf(device.kind).jacks.filter(
    (j) =>
      j.direction === 'out' &&
      !j.inside &&
      (j.signal === 'audio' || j.signal === 'speaker' || j.signal === 'digital'),
  );

export const jackAt = (rig: Rig, end: End): Jack | undefined => {
  const device = deviceOf(rig, end.device);
  return device && jackOf(device, end.jack);
};

/** The loops of a device. */
export const loopsOf = (rig: Rig, id: string): Loop[] => {
  const device = deviceOf(rig, id);
  return (device && kindOf(device.kind).loops) ?? [];
};
