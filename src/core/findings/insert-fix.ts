import { kindOf } from '../kinds';
import { freshId, idsOf } from '../rig/fresh-id';
import type { Device, Lead, Rig } from '../rig/schema';
import type { Fix } from './finding';

/** A fix that puts a new device into a lead, switched on: bypassed it would cure nothing. */
export function insertFix(
  rig: Rig,
  kind: string,
  name: string,
  lead: string,
  words: string,
  settings?: Device['settings'],
): Fix {
  const id = freshId(name, idsOf(rig.devices));
  const { alwaysOn, startsEngaged } = kindOf(kind);
  const device = {
    ...{ id, kind, name },
    ...(!alwaysOn && !startsEngaged && { engaged: true }),
    ...(settings && { settings }),
  };
  return { words, edits: [{ edit: 'insertInLead', lead, device, newLeads: twoLeads(rig, id) }] };
}

/** A coil in front of what wants a pickup, where no order of the boxes brings it one. */
export const coilFix = (rig: Rig, lead: Lead | undefined, wants: string): Fix | undefined =>
  lead &&
  insertFix(
    rig,
    'pickup-simulator',
    'Pickup simulator',
    lead.id,
    `Put a pickup simulator in front of ${wants}`,
  );

/** Ids of two new leads around a device. */
function twoLeads(rig: Rig, device: string): [string, string] {
  const taken = idsOf(rig.leads);
  const first = freshId(`${device}-lead`, taken);
  for (let n = 2; ; n++) {
    const second = freshId(`${device}-lead-${n}`, taken);
    if (second !== first) return [first, second];
  }
}

/** A fix that moves a device into another lead. */
export function moveFix(rig: Rig, device: string, lead: string, words: string): Fix {
  return { words, edits: [{ edit: 'moveDevice', device, lead, newLeads: twoLeads(rig, device) }] };
}
