import { sure } from '../outcome';
import { conductorsOf, type Jack, type Kind, kindOf } from '../kinds';
import { deviceOf } from '../rig/find';
import type { Edge, PlugShape } from '../rig/choices';
import type { Device, Lead, Rig } from '../rig/schema';

/** How far a plug stands out of its jack, in mm, and how wide it is. */
export const PLUG_CLEARANCE: Record<PlugShape, number> = {
  straight: 45,
  'right-angle': 25,
  flat: 16,
};
export const PLUG_WIDTH = 16;

/**
 * What a device measures, in mm: as it was measured, else what its kind usually does; nothing for
 * what has no body of its own.
 */
export function sizeOf(device: Device): { width: number; depth: number; height: number } | null {
  if (device.host !== undefined) return null;
  return device.size ?? kindOf(device.kind).size ?? null;
}

/** A jack on a body: which edge, how far along it from its left or rear end, in mm. */
export interface Spot {
  jack: Jack;
  edge: Edge;
  mm: number;
}

/** Boxes from this width on have all their jacks at the rear, in mm. */
const WIDE = 200;

/**
 * Where the jacks of a device are. Usual: on a pedal, audio comes in on the right and leaves on the
 * left, messages and controls sit at the rear; on a wide box everything sits at the rear. Spread
 * evenly, unless the kind or the device says otherwise.
 */
export function spotsOf(device: Device): Spot[] {
  const size = sizeOf(device);
  return size ? spotsOnBox(kindOf(device.kind), size, device.jackSpots) : [];
}

/** Where the jacks of a kind are on a box of a size; `own` is what is said of this very box. */
export function spotsOnBox(
  kind: Kind,
  size: { width: number; depth: number },
  own?: Device['jackSpots'],
): Spot[] {
  const jacks = kind.jacks.filter((j) => !j.inside && j.signal !== 'air');
  const edgeOf = (j: Jack): Edge => {
    if (kind.rackUnits !== undefined || size.width >= WIDE) return 'rear';
    return j.signal === 'audio' || j.signal === 'speaker'
      ? j.direction === 'out'
        ? 'left'
        : 'right'
      : 'rear';
  };
  const usual = new Map<Edge, Jack[]>();
  for (const j of jacks)
    if (!kind.jackSpots?.[j.id]) usual.set(edgeOf(j), [...(usual.get(edgeOf(j)) ?? []), j]);
  return jacks.map((jack) => {
    const said = own?.[jack.id] ?? kind.jackSpots?.[jack.id];
    if (said) return { jack, edge: said.edge, mm: said.mm };
    const edge = edgeOf(jack);
    const beside = sure(usual.get(edge));
    const length = edge === 'rear' || edge === 'front' ? size.width : size.depth;
    return { jack, edge, mm: (length * (beside.indexOf(jack) + 1)) / (beside.length + 1) };
  });
}

/**
 * The shape of a lead's plug: as it was said, else right-angle where both ends stand on one board,
 * straight where not, and for plugs that come in no other shape.
 */
export function plugShape(rig: Rig, lead: Lead, side: 'from' | 'to'): PlugShape {
  const said = lead.plugs?.[side];
  if (said) return said;
  const [a, b] = [lead.from, lead.to].map((e) => deviceOf(rig, e.device));
  const end = side === 'from' ? a : b;
  const jack = end && kindOf(end.kind).jacks.find((j) => j.id === lead[side].jack);
  const onlyStraight =
    jack !== undefined &&
    ['XLR', 'DIN', 'USB', 'digital', 'combo', 'speaker'].includes(jack.connector);
  return !onlyStraight && a?.at && b?.at && a.at.board === b.at.board ? 'right-angle' : 'straight';
}

/**
 * Foot switches of a device, from its rear left corner in mm: one near the front, or as many as its
 * kind has in a row.
 */
export function switchesOf(device: Device): { x: number; y: number }[] {
  const size = sizeOf(device);
  if (!size) return [];
  const count = kindOf(device.kind).switches ?? 1;
  return Array.from({ length: count }, (_, i) => ({
    x: (size.width * (i + 0.5)) / count,
    y: Math.max(size.depth / 2, size.depth - 30),
  }));
}

/**
 * A point of a body that is turned clockwise by quarter turns, from the corner that is then its
 * rear left one.
 */
export function turned(
  x: number,
  y: number,
  size: { width: number; depth: number },
  turn: 0 | 90 | 180 | 270,
): { x: number; y: number } {
  if (turn === 90) return { x: size.depth - y, y: x };
  if (turn === 180) return { x: size.width - x, y: size.depth - y };
  if (turn === 270) return { x: y, y: size.width - x };
  return { x, y };
}

/** A spot as a point on its unturned body, and which way its plug leaves. */
export function spotPoint(
  spot: Pick<Spot, 'edge' | 'mm'>,
  size: { width: number; depth: number },
): { x: number; y: number; nx: number; ny: number } {
  if (spot.edge === 'left') return { x: 0, y: spot.mm, nx: -1, ny: 0 };
  if (spot.edge === 'right') return { x: size.width, y: spot.mm, nx: 1, ny: 0 };
  if (spot.edge === 'rear') return { x: spot.mm, y: 0, nx: 0, ny: -1 };
  return { x: spot.mm, y: size.depth, nx: 0, ny: 1 };
}

/** A direction turned clockwise. */
export function turnedWay(
  nx: number,
  ny: number,
  turn: 0 | 90 | 180 | 270,
): { nx: number; ny: number } {
  const plain = (v: number) => v || 0;
  if (turn === 90) return { nx: plain(-ny), ny: nx };
  if (turn === 180) return { nx: plain(-nx), ny: plain(-ny) };
  if (turn === 270) return { nx: ny, ny: plain(-nx) };
  return { nx, ny };
}

/** Whether a jack is one of those a lead names; two conductors of one jack are one socket. */
export const isSpot = (spot: Spot, jack: string): boolean =>
  spot.jack.id === jack || conductorsOf(spot.jack).includes(jack);
