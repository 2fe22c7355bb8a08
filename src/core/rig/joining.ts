import { byKey } from '../graph';
import { kindOf, type Jack } from '../kinds';
import { insideOf, jackOf, leadTypeFor } from './find';
import { freshId } from './fresh-id';
import { type Place, placeOf as standsAt } from './stands-where';
import type { Device, End, Lead, Rig } from './schema';

/**
 * The usual length of a lead between two places of a stage, in metres (typical): from a hand or a
 * pack to the floor, from the floor to amplifiers and racks, from the stage to the stage box.
 */
const USUAL_METRES: Record<Place, Record<Place, number>> = {
  player: { player: 0.5, floor: 6, rack: 6, amps: 6, house: 10 },
  floor: { player: 6, floor: 0.5, rack: 6, amps: 6, house: 10 },
  rack: { player: 6, floor: 6, rack: 0.5, amps: 3, house: 10 },
  amps: { player: 6, floor: 6, rack: 3, amps: 1, house: 10 },
  house: { player: 10, floor: 10, rack: 10, amps: 10, house: 1 },
};

/** The usual length of a lead between two jacks, by where their devices stand: 0 inside a host, 0.1 through air. */
export function usualMetres(rig: Rig, from: End, to: End): number {
  const type = leadTypeFor(rig, from, to);
  if (type === 'inside') return 0;
  if (type === 'air') return 0.1;
  const [a, b] = [from, to].map((e) => rig.devices.find((d) => d.id === e.device));
  return a && b ? USUAL_METRES[standsAt(a)][standsAt(b)] : 0.5;
}

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
function isTaken(rig: Rig, end: End, leads: readonly Lead[] = rig.leads): boolean {
  if (placeOf(rig, end) !== '') return false;
  const here = leads.filter((l) => isAt(l, end));
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
): { device: Device; jacks: Jack[] }[] => {
  const leadsAt = byKey(
    rig.leads.flatMap((l) => [
      { at: l.from.device, l },
      { at: l.to.device, l },
    ]),
    ({ at }) => at,
  );
  return rig.devices
    .map((device) => {
      const leads = [...new Set((leadsAt.get(device.id) ?? []).map(({ l }) => l))];
      const jacks = kindOf(device.kind).jacks.filter((j) => {
        const end = { device: device.id, jack: j.id };
        return (
          (j.direction === direction || j.direction === 'either') &&
          only(j) &&
          (within === null || (j.inside ? device.id : (device.host ?? '')) === within) &&
          (j.many || !isTaken(rig, end, leads))
        );
      });
      return { device, jacks };
    })
    .filter((d) => d.jacks.length > 0);
};

/**
 * The lead that joins two jacks: of the type that they ask for, and of the usual length for where
 * they stand. The second branch into a TRS jack takes the conductor that the first leaves.
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
    metres: usualMetres(rig, from, to),
  };
}

/** A way to join a device to another: the two jacks, and those of the other side where both have one free. */
export interface Joint {
  from: End;
  to: End;
  other?: { from: End; to: End };
}

/**
 * Every way in which a device can be joined to others by one lead, or by two where both ends are
 * stereo: from its free outputs and into its free inputs, jacks of one sort with jacks of the same
 * sort in the same place. Main jacks come first.
 */
export function jointsOf(rig: Rig, device: string): Joint[] {
  const ends = (direction: 'in' | 'out') =>
    freeJacks(rig, direction, null).flatMap(({ device: d, jacks }) =>
      jacks.map((jack) => ({ device: d, jack, end: { device: d.id, jack: jack.id } })),
    );
  type Ended = ReturnType<typeof ends>[number];
  const [outs, ins] = [ends('out'), ends('in')];
  const fits = (a: Ended, b: Ended) =>
    a.device.id !== b.device.id &&
    a.jack.signal === b.jack.signal &&
    placeOf(rig, a.end) === placeOf(rig, b.end);
  const partner = (all: readonly Ended[], { device: d, jack }: Ended) =>
    all.find((o) => o.device.id === d.id && o.jack.id === jack.pair?.with);
  const isMain = ({ device: d, jack }: Ended) => {
    const { through } = kindOf(d.kind);
    return jack.id === through?.in || jack.id === through?.out;
  };
  return outs
    .flatMap((a) => ins.filter((b) => fits(a, b)).map((b) => ({ a, b })))
    .filter(({ a, b }) => a.device.id === device || b.device.id === device)
    .sort((x, y) => [y.a, y.b].filter(isMain).length - [x.a, x.b].filter(isMain).length)
    .map(({ a, b }) => {
      const [a2, b2] = [partner(outs, a), partner(ins, b)];
      const isTwo = a.jack.pair?.side === 'left' && b.jack.pair?.side === 'left' && a2 && b2;
      return { from: a.end, to: b.end, ...(isTwo && { other: { from: a2.end, to: b2.end } }) };
    });
}

/** The leads of a joint: one, or one a side. */
export function leadsOfJoint(rig: Rig, { from, to, other }: Joint): Lead[] {
  const first = joiningLead(rig, from, to);
  if (!other) return [first];
  const second = joiningLead({ ...rig, leads: [...rig.leads, first] }, other.from, other.to);
  return [first, second];
}
