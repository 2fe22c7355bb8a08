import { at, sure } from '../outcome';
import { deviceOf } from '../rig/find';
import { placeOf } from '../rig/stands-where';
import type { Device, End, Lead, Rig } from '../rig/schema';
import { boardModel, placesNow } from './board-model';
import { BoardState } from './board-state';
import { type Path } from './board-ways';
import { isSpot, sizeOf, spotPoint, spotsOf } from './footprint';
import { BETWEEN_MM, UNIT_MM, unitsOf } from './rack';

/** How long a lead has to be from plug to plug, in mm, and of what ways that is made. */
export interface LeadNeed {
  mm: number;
  how: string;
}

/** Two plugs that face each other still need so much lead between them to bend, in mm: a rule of thumb. */
const LEAST_WAY_MM = 40;

/** What a device stands on: a board, a rack, or the stage itself. */
function standOf(device: Device): { id: string; on: 'board' | 'rack' | 'stage' } {
  if (device.at) return { id: device.at.board, on: 'board' };
  if (device.rack) return { id: device.rack.rack, on: 'rack' };
  return { id: device.id, on: 'stage' };
}

const metres = (mm: number): string => `${(mm / 1000).toFixed(2)} m`;

/**
 * The routed length of every lead whose ends have places: along the board from plug to plug; in a
 * rack to the nearer side, up or down, and back; between the two along the edges of the stage
 * (metres left or right plus metres back or front, as leads are laid). Leads with an end that has
 * no place have none, and neither has one that a player holds: it has to be as long as the player
 * moves.
 */
export function leadNeeds(rig: Rig): Map<string, LeadNeed> {
  const needs = new Map<string, LeadNeed>();
  const ways = new Map<string, Map<Lead, Path>>();
  const wayOn: WayOn = (id, lead) => {
    let known = ways.get(id);
    const board = rig.boards?.find((b) => b.id === id);
    if (!known && board) {
      const model = boardModel(rig, board, new Map());
      const paths = new BoardState(model, placesNow(model)).paths();
      known = new Map(model.runs.map((run, k) => [run.lead, at(paths, k)]));
      ways.set(id, known);
    }
    return known?.get(lead);
  };
  const spots = new Map((rig.stage?.spots ?? []).map((s) => [s.id, s]));
  for (const lead of rig.leads) {
    if (lead.type === 'inside' || lead.type === 'air' || isHeld(rig, lead)) continue;
    const [a, b] = [sure(deviceOf(rig, lead.from.device)), sure(deviceOf(rig, lead.to.device))];
    const [one, two] = [standOf(a), standOf(b)];
    if (one.id === two.id && one.on === 'board') {
      const way = wayOn(one.id, lead);
      if (way) needs.set(lead.id, { mm: Math.max(way.mm, LEAST_WAY_MM), how: 'on the board' });
      continue;
    }
    if (one.id === two.id && one.on === 'rack') {
      const mm = inRack(a, lead.from, b, lead.to);
      if (mm !== undefined) needs.set(lead.id, { mm, how: 'in the rack' });
      continue;
    }
    const [from, to] = [spots.get(one.id), spots.get(two.id)];
    if (!from || !to) continue;
    const parts = [partOf(wayOn, lead, a, lead.from, one), partOf(wayOn, lead, b, lead.to, two)];
    const stage = (Math.abs(from.x - to.x) + Math.abs(from.y - to.y)) * 1000;
    needs.set(lead.id, {
      mm: stage + parts.reduce((s, p) => s + p.mm, 0),
      how: [
        `${metres(stage)} along the stage`,
        ...parts.filter((p) => p.mm > 0).map((p) => `${metres(p.mm)} ${p.how}`),
      ].join(', '),
    });
  }
  return needs;
}

/** Whether a lead hangs on something that a player holds or wears: an instrument, a pack. */
export const isHeld = (rig: Rig, { from, to }: Lead): boolean =>
  [from, to].some((end) => {
    const device = deviceOf(rig, end.device);
    return device !== undefined && placeOf(device) === 'player';
  });

/** The way of a lead on a board, if it has one there. */
type WayOn = (board: string, lead: Lead) => Path | undefined;

/** From a jack to where the lead leaves its board or rack. */
function partOf(
  wayOn: WayOn,
  lead: Lead,
  device: Device,
  end: End,
  stand: ReturnType<typeof standOf>,
): LeadNeed {
  if (stand.on === 'board')
    return { mm: wayOn(stand.id, lead)?.mm ?? 0, how: 'to the edge of the board' };
  if (stand.on === 'rack')
    return {
      mm: rackEdge(device, end) + (device.rack!.unit - 1) * UNIT_MM,
      how: 'to the foot of the rack',
    };
  return { mm: 0, how: '' };
}

/** How far a jack is from the nearer side of the rack, in mm. */
function rackEdge(device: Device, end: End): number {
  const x = jackX(device, end);
  return Math.min(x, BETWEEN_MM - x);
}

function jackX(device: Device, end: End): number {
  const size = sizeOf(device);
  const spot = spotsOf(device).find((s) => isSpot(s, end.jack));
  const { shelf } = unitsOf(device);
  const x = (shelf ? (device.rack?.x ?? 0) : 0) + (size && spot ? spotPoint(spot, size).x : 0);
  return Math.max(0, Math.min(BETWEEN_MM, x));
}

/** Within a rack: straight across on the same unit, else to the nearer side, up or down, and back in. */
function inRack(a: Device, from: End, b: Device, to: End): number | undefined {
  const [sizeA, sizeB] = [sizeOf(a), sizeOf(b)];
  if (!sizeA || !sizeB || !a.rack || !b.rack) return undefined;
  const deep = Math.abs((a.rack.rear ? 0 : sizeA.depth) - (b.rack.rear ? 0 : sizeB.depth));
  const [x, y] = [jackX(a, from), jackX(b, to)];
  if (a.rack.unit === b.rack.unit) return Math.abs(x - y) + deep;
  const side = Math.min(x + y, 2 * BETWEEN_MM - x - y);
  return side + Math.abs(a.rack.unit - b.rack.unit) * UNIT_MM + deep;
}
