import { sure } from '../outcome';
import { kindOf } from '../kinds';
import { leadsFrom, leadsInto } from '../rig/find';
import type { Device, Lead, Rack, Rig } from '../rig/schema';
import { isSpot, PLUG_CLEARANCE, plugShape, sizeOf, spotsOf } from './footprint';
import { gramsOf } from './gear';
import { mainsOf } from './mains';

/** A rack unit, the outer width of a panel, and the room between the rails, in mm. */
export const UNIT_MM = 44.45;
export const PANEL_MM = 482.6;
export const BETWEEN_MM = 450;

/**
 * Units that a device takes: as it was said, else as its kind has, else as many as its height needs
 * on a shelf.
 */
export function unitsOf(device: Device): { units: number; shelf: boolean } {
  const own = device.units ?? kindOf(device.kind).rackUnits;
  return own !== undefined
    ? { units: own, shelf: (sizeOf(device)?.width ?? 0) <= BETWEEN_MM }
    : {
        units: Math.max(1, Math.ceil((sizeOf(device)?.height ?? UNIT_MM) / UNIT_MM - 0.01)),
        shelf: true,
      };
}

/**
 * A device in a rack. `from` to `to` are its units; x from the left rail, `inside` how far it
 * reaches in from its rail with the plugs behind it, in mm.
 */
export interface Mounted {
  device: Device;
  from: number;
  to: number;
  rear: boolean;
  shelf: boolean;
  x: number;
  width: number;
  depth: number;
  plugs: number;
  inside: number;
}

/** Room that is left beside what stands on a shelf, in mm. */
const BESIDE_MM = 10;

/**
 * The lowest free place in a rack that a device fits into: whole units, or beside or between what stands on a
 * shelf already. Nothing free: the lowest unit, where it will be told what it hits.
 */
export function freeRackPlace(rig: Rig, rack: Rack, device: Device): { unit: number; x?: number } {
  const list = mountedIn(rig, rack);
  const { units, shelf } = unitsOf(device);
  const wide = sizeOf(device)?.width ?? 0;
  for (let unit = 1; unit + units - 1 <= rack.units; unit++) {
    const here = list.filter((m) => !m.rear && m.from <= unit + units - 1 && m.to >= unit);
    if (!here.length) return shelf ? { unit, x: 0 } : { unit };
    const ends = [0, ...here.map((m) => m.x + m.width + BESIDE_MM)].sort((a, b) => a - b);
    const x = ends.find(
      (left) =>
        left + wide <= BETWEEN_MM &&
        here.every((m) => m.shelf && (left + wide <= m.x || left >= m.x + m.width)),
    );
    if (shelf && x !== undefined) return { unit, x };
  }
  return { unit: 1 };
}

/**
 * Where a device in a rack comes to be that is moved by millimetres: to the nearest unit, on a
 * shelf to the nearest 5 mm. Undefined where that is where it is.
 */
export function draggedPlace(
  device: Device,
  dx: number,
  dy: number,
): { unit: number; x?: number } | undefined {
  const now = device.rack;
  if (!now) return undefined;
  const unit = Math.max(1, Math.min(60, now.unit - Math.round(dy / UNIT_MM)));
  if (!unitsOf(device).shelf) return unit === now.unit ? undefined : { unit };
  const most = Math.max(0, BETWEEN_MM - (sizeOf(device)?.width ?? 0));
  const x = Math.max(0, Math.min(most, Math.round(((now.x ?? 0) + dx) / 5) * 5));
  return unit === now.unit && x === (now.x ?? 0) ? undefined : { unit, x };
}

/** How far a mains plug stands out of its inlet at the rear, with the bend of its lead, in mm: usual. */
const MAINS_PLUG_MM = 60;

/** What a rack holds, from the top. */
export function mountedIn(rig: Rig, rack: Rack): Mounted[] {
  return rig.devices
    .filter((d) => d.rack?.rack === rack.id && sizeOf(d))
    .map((device): Mounted => {
      const size = sure(sizeOf(device) ?? undefined);
      const { units, shelf } = unitsOf(device);
      const rear = device.rack!.rear ?? false;
      // What looks into the rack: the rear of what hangs on the front rails, the front of what
      // hangs on the rear ones.
      const inward = spotsOf(device).filter((s) => s.edge === (rear ? 'front' : 'rear'));
      const clearances = (leads: readonly Lead[], side: 'from' | 'to') =>
        leads.flatMap((l) =>
          l.type !== 'air' && inward.some((spot) => isSpot(spot, l[side].jack))
            ? [PLUG_CLEARANCE[plugShape(rig, l, side)]]
            : [],
        );
      const plugs = Math.max(
        !rear && mainsOf(device) ? MAINS_PLUG_MM : 0,
        ...clearances(leadsFrom(rig, device.id), 'from'),
        ...clearances(leadsInto(rig, device.id), 'to'),
      );
      return {
        device,
        from: device.rack!.unit,
        to: device.rack!.unit + units - 1,
        rear,
        shelf,
        x: shelf ? (device.rack!.x ?? 0) : 0,
        width: shelf ? size.width : BETWEEN_MM,
        depth: size.depth,
        plugs,
        inside: size.depth + plugs,
      };
    })
    .sort((a, b) => b.to - a.to || a.x - b.x);
}

/** What is wrong in a rack: with which device, and by how many mm where that says something. */
export interface RackClash {
  what: 'overlap' | 'too-high' | 'too-deep' | 'too-wide' | 'heat' | 'access';
  a: Mounted;
  b?: Mounted;
  mm: number;
}

export function rackClashes(rig: Rig, rack: Rack): RackClash[] {
  const list = mountedIn(rig, rack);
  const out: RackClash[] = [];
  list.forEach((a, i) => {
    if (a.to > rack.units) out.push({ what: 'too-high', a, mm: (a.to - rack.units) * UNIT_MM });
    if (a.inside > rack.depth) out.push({ what: 'too-deep', a, mm: a.inside - rack.depth });
    if (a.shelf && a.x + a.width > BETWEEN_MM)
      out.push({ what: 'too-wide', a, mm: a.x + a.width - BETWEEN_MM });
    if (
      a.rear &&
      kindOf(a.device.kind).parameters.some((p) => p.type === 'knob' || p.type === 'choice')
    )
      out.push({ what: 'access', a, mm: 0 });
    for (const b of list.slice(i + 1)) {
      if (a.from > b.to || b.from > a.to || a.x >= b.x + b.width || b.x >= a.x + a.width) continue;
      if (a.rear === b.rear) out.push({ what: 'overlap', a, b, mm: 0 });
      else if (a.inside + b.inside > rack.depth)
        out.push({ what: 'overlap', a, b, mm: a.inside + b.inside - rack.depth });
    }
    if (kindOf(a.device.kind).ventsUp) {
      const above = list.find(
        (b) =>
          b !== a &&
          b.from <= a.to + 1 &&
          b.to >= a.to + 1 &&
          b.x < a.x + a.width &&
          a.x < b.x + b.width,
      );
      if (above) out.push({ what: 'heat', a, b: above, mm: 0 });
    }
  });
  return out;
}

/**
 * Sums of a rack: weight in grams with the case, height of the centre of gravity above the lowest
 * unit in mm, units taken, heat in W.
 */
export interface RackSums {
  grams: number;
  unweighed: number;
  centreMm: number | null;
  used: number;
  watts: number;
}

/**
 * The case's own weight is taken to sit in its middle. Heat is what comes out of the mains sockets,
 * all of it.
 */
export function rackSums(rig: Rig, rack: Rack): RackSums {
  const list = mountedIn(rig, rack);
  const middle = (m: Mounted) => ((m.from - 1 + m.to) / 2) * UNIT_MM;
  const weights = [
    ...list.map((m) => ({ grams: gramsOf(m.device) ?? 0, at: middle(m) })),
    { grams: rack.grams ?? 0, at: (rack.units / 2) * UNIT_MM },
  ];
  const grams = weights.reduce((s, w) => s + w.grams, 0);
  const taken = new Set(
    list.flatMap((m) => Array.from({ length: m.to - m.from + 1 }, (_, i) => m.from + i)),
  );
  return {
    grams,
    unweighed: list.filter((m) => gramsOf(m.device) === null).length,
    centreMm: grams > 0 ? weights.reduce((s, w) => s + w.grams * w.at, 0) / grams : null,
    used: taken.size,
    watts: list.reduce((s, m) => s + (mainsOf(m.device)?.watts ?? 0), 0),
  };
}

/**
 * One line of a panel: its two jacks with the leads in them. Inside is the side that looks into the
 * rack or board.
 */
export interface PanelLine {
  panel: Device;
  outside: string;
  inside: string;
  outsideLead?: string;
  insideLead?: string;
}

/** Every line of every panel: two sockets that work both ways and are joined by metal. */
export function panelPlan(rig: Rig): PanelLine[] {
  return rig.devices.flatMap((panel) => {
    const kind = kindOf(panel.kind);
    const either = kind.jacks.filter((j) => j.direction === 'either' && j.signal === 'audio');
    if (either.length < 2 || (!panel.rack && !panel.at && kind.rackUnits === undefined)) return [];
    const spots = spotsOf(panel);
    const rear = spots.filter((s) => s.edge === 'rear');
    const leadAt = (jack: string) =>
      rig.leads.find(
        (l) =>
          (l.from.device === panel.id && l.from.jack === jack) ||
          (l.to.device === panel.id && l.to.jack === jack),
      )?.id;
    return rear.flatMap((s): PanelLine[] => {
      const other = spots.find((x) => x.edge === 'front' && Math.abs(x.mm - s.mm) < 1);
      if (!other) return [];
      const [outsideLead, insideLead] = [leadAt(s.jack.id), leadAt(other.jack.id)];
      return [
        {
          panel,
          outside: s.jack.id,
          inside: other.jack.id,
          ...(outsideLead && { outsideLead }),
          ...(insideLead && { insideLead }),
        },
      ];
    });
  });
}
