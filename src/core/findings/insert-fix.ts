import { freshId } from '../rig/fresh-id';
import type { Rig } from '../rig/schema';
import type { Fix } from './finding';

/** A fix that puts a new device into a lead. */
export function insertFix(rig: Rig, kind: string, name: string, lead: string, words: string): Fix {
  const id = freshId(name, rig.devices.map((d) => d.id));
  const first = freshId(`${id}-lead`, rig.leads.map((l) => l.id));
  const second = freshId(`${id}-lead`, [...rig.leads.map((l) => l.id), first]);
  return { words, edits: [{ edit: 'insertInLead', lead, device: { id, kind, name }, newLeads: [first, second] }] };
}

/** A fix that moves a device into another lead. */
export function moveFix(rig: Rig, device: string, lead: string, words: string): Fix {
  const first = freshId(`${device}-lead`, rig.leads.map((l) => l.id));
  const second = freshId(`${device}-lead`, [...rig.leads.map((l) => l.id), first]);
  return { words, edits: [{ edit: 'moveDevice', device, lead, newLeads: [first, second] }] };
}
