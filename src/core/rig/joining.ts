import { kindOf, type Jack } from '../kinds';
import { insideOf, jackOf, leadTypeFor } from './find';
import { freshId } from './fresh-id';
import type { Device, End, Lead, Rig } from './schema';

/** The place of an end: the host that it lies inside, or none, which is the stage. */
export const placeOf = (rig: Rig, end: End): string => insideOf(rig, end) ?? '';

const isAt = (lead: Lead, end: End): boolean =>
  [lead.from, lead.to].some((e) => e.device === end.device && e.jack === end.jack);

/** Whether a jack has a ring beside its tip, so that two branches of an insert lead share it. */
const twoConductors = (rig: Rig, e: End): boolean => {
  const device = rig.devices.find((d) => d.id === e.device);
  const jack = device && jackOf(device, e.jack);
  return jack?.stereo !== undefined || jack?.insert !== undefined;
};

/** Whether a jack holds all that it can: a lead, or both branches of an insert lead. */
function isTaken(rig: Rig, end: End): boolean {
  if (placeOf(rig, end) !== '') return false;
  const here = rig.leads.filter((l) => isAt(l, end));
  return here.some((l) => !(l.type === 'insert' && here.length < 2 && twoConductors(rig, end)));
}

/**
 * Jacks that a new lead could begin or end at, by device. `within` leaves those of one place:
 * jacks outside, or points and blocks inside one host, since only what is in the same place can be
 * joined.
 */
export const freeJacks = (
  rig: Rig,
  direction: 'in' | 'out',
  within: string | null,
  only: (jack: Jack) => boolean = () => true,
): { device: Device; jacks: Jack[] }[] =>
  rig.devices
    .map((device) => ({
      device,
      jacks: kindOf(device.kind).jacks.filter((j) => {
        const end = { device: device.id, jack: j.id };
        return (
          only(j) &&
          (j.direction === direction || j.direction === 'either') &&
          (within === null || placeOf(rig, end) === within) &&
          (j.many || !isTaken(rig, end))
        );
      }),
    }))
    .filter((d) => d.jacks.length > 0);

/**
 * The lead that joins two jacks: of the type that they ask for, half a metre long where it is a
 * real one. The second branch into a TRS jack takes the conductor that the first leaves.
 */
export function joiningLead(rig: Rig, from: End, to: End): Lead {
  const type = leadTypeFor(rig, from, to);
  const other =
    type === 'insert' &&
    rig.leads.find((l) => l.type === 'insert' && [from, to].some((end) => isAt(l, end)));
  return {
    ...(other && { conductor: other.conductor === 'ring' ? 'tip' : 'ring' }),
    id: freshId(
      'lead',
      rig.leads.map((l) => l.id),
    ),
    from,
    to,
    type,
    metres: type === 'inside' ? 0 : type === 'air' ? 0.1 : 0.5,
  };
}
