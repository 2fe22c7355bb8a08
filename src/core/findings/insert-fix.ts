import { kindOf } from '../kinds';
import { freshId, idsOf } from '../rig/fresh-id';
import type { Edit } from '../rig/edits';
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
  const device = switchedOn(rig, kind, name, settings);
  const newLeads = twoLeads(rig, device.id);
  return { words, edits: [{ edit: 'insertInLead', lead, device, newLeads }] };
}

function switchedOn(rig: Rig, kind: string, name: string, settings?: Device['settings']): Device {
  const { alwaysOn, startsEngaged } = kindOf(kind);
  return {
    id: freshId(name, idsOf(rig.devices)),
    kind,
    name,
    ...(!alwaysOn && !startsEngaged && { engaged: true }),
    ...(settings && { settings }),
  };
}

/**
 * A fix that puts a new device with two sides into two leads, wherever these begin and end: the left
 * side into the first. Nothing for a kind without two sides.
 */
export function insertWideFix(
  rig: Rig,
  kind: string,
  name: string,
  sides: readonly [Lead, Lead],
  words: string,
): Fix | undefined {
  const { through, jacks } = kindOf(kind);
  const partner = (jack: string | undefined) => jacks.find((j) => j.id === jack)?.pair?.with;
  const ins = [through?.in, partner(through?.in)];
  const outs = [through?.out, partner(through?.out)];
  const device = switchedOn(rig, kind, name);
  const taken = new Set(idsOf(rig.leads));
  const connects = sides.flatMap((lead, i): Edit[] => {
    const [into, out] = [ins[i], outs[i]];
    if (into === undefined || out === undefined) return [];
    return [
      { from: lead.from, to: { device: device.id, jack: into } },
      { from: { device: device.id, jack: out }, to: lead.to },
    ].map((ends): Edit => {
      const id = freshId(`${device.id}-lead`, taken);
      taken.add(id);
      return { edit: 'connect', lead: { id, ...ends, type: lead.type, metres: lead.metres } };
    });
  });
  if (connects.length < 4) return undefined;
  const pulled = sides.map(({ id }): Edit => ({ edit: 'disconnect', lead: id }));
  return { words, edits: [{ edit: 'addDevice', device }, ...pulled, ...connects] };
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
