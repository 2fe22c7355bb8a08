import { kindOf } from '../../core/kinds';
import type { Edit } from '../../core/rig';
import { isPlugged } from '../../core/rig/find';
import { freshId, idsOf } from '../../core/rig/fresh-id';
import type { Device, Rig } from '../../core/rig/schema';

/** Two ids for leads that an edit makes. */
export const newLeads = (rig: Rig): string[] => {
  const taken = idsOf(rig.leads);
  const first = freshId('lead', taken);
  return [first, freshId('lead', new Set([...taken, first]))];
};

/** Moves a device with what goes through it into a lead. */
export const moveEdit = (rig: Rig, device: string, lead: string): Edit => ({
  edit: 'moveDevice',
  device,
  lead,
  newLeads: newLeads(rig),
});

/**
 * The output that the next device would be plugged into, if one is free: the main one before the
 * others. Inside a host an output feeds any number of links.
 */
export function freeOutput(rig: Rig, device: Device): string | undefined {
  const { jacks, through } = kindOf(device.kind);
  if (device.host !== undefined) return through?.out;
  const free = jacks.filter(
    (j) => j.direction !== 'in' && !j.inside && (j.many || !isPlugged(rig, device.id, j.id)),
  );
  return (
    free.find((j) => j.id === through?.out) ??
    free.find((j) => j.direction === 'out') ??
    free[0]
  )?.id;
}
