import { byKey } from '../graph';
import { at as entryAt, sure } from '../outcome';
import { kindOf } from '../kinds';
import { byId } from '../rig/find';
import type { Board, BoardPlace, Device, Lead, Rig } from '../rig/schema';
import {
  isSpot,
  PLUG_CLEARANCE,
  plugShape,
  sizeOf,
  spotPoint,
  spotsOf,
  switchesOf,
  turned,
  turnedWay,
} from './footprint';
import { gramsOf } from './gear';
import { needOf } from './power';

/**
 * A jack in use on an item: the point of the jack and of the plug's end, from the item's rear left
 * corner as turned, and how far the plug stands out.
 */
interface Socket {
  x: number;
  y: number;
  nx: number;
  ny: number;
  clearance: number;
  tipX: number;
  tipY: number;
  jack: string;
}

/** A body to be placed: everything that does not depend on where it stands. Lengths in mm. */
export interface Item {
  device: Device;
  width: number;
  depth: number;
  height: number;
  under: boolean;
  pinned: boolean;
  sockets: Socket[];
  switches: { x: number; y: number }[];
  pressed: number;
  radiates: boolean;
  sensitive: boolean;
  grams: number;
  turn: Turn;
}

export type Turn = 0 | 90 | 180 | 270;
export const TURNS: readonly Turn[] = [0, 90, 180, 270];

/** A lead with an end on the board: between two items, or from one to the edge where it leaves. */
export interface Run {
  lead: Lead;
  a: number;
  aSocket: number;
  b: number;
  bSocket: number;
}

export interface Model {
  board: Board;
  items: Item[];
  runs: Run[];
  lanes: number[];
  /** One of the items as it lies when it is turned. */
  asTurned: (i: number, turn: Turn) => Item;
}

export interface XY {
  x: number;
  y: number;
}

/**
 * What is needed to judge places on a board. `pressed` says how often the switches of a device are
 * stepped on; `with_` adds devices that do not stand on it yet.
 */
export function boardModel(
  rig: Rig,
  board: Board,
  pressed: ReadonlyMap<string, number>,
  with_: readonly string[] = [],
): Model {
  // By id: what is said of two of them, and what a search finds, hangs on no order of the file.
  const devices = rig.devices
    .filter((d) => sizeOf(d) && (d.at?.board === board.id || with_.includes(d.id)))
    .sort(byId);
  const isHere = new Set(devices.map((d) => d.id));
  const leads = rig.leads
    .filter(
      (l) =>
        l.type !== 'inside' &&
        l.type !== 'air' &&
        (isHere.has(l.from.device) || isHere.has(l.to.device)),
    )
    .sort(byId);
  const onBoard: Rig = devices.every((d) => d.at)
    ? rig
    : {
        ...rig,
        devices: rig.devices.map((d) =>
          isHere.has(d.id) && !d.at ? { ...d, at: { board: board.id, x: 0, y: 0 } } : d,
        ),
      };
  const ends = byKey(
    leads.flatMap((l) => (['from', 'to'] as const).map((s): LeadEnd => ({ l, s }))),
    ({ l, s }) => l[s].device,
  );
  const turnedItem = (d: Device, turn: Turn) =>
    itemOf(d, board, socketsOf(d, turn, ends.get(d.id) ?? [], onBoard), pressed, turn);
  const items = devices.map((d) => turnedItem(d, d.at?.turn ?? 0));
  return {
    board,
    items,
    runs: runsOf(leads, items),
    lanes: [6, ...board.rails.map((r) => r.y + r.depth / 2), board.depth - 6],
    asTurned: (i, turn) => turnedItem(entryAt(devices, i), turn),
  };
}

/** One end of a lead. */
interface LeadEnd {
  l: Lead;
  s: 'from' | 'to';
}

/** The sockets of a device that ends of leads are in, as they lie when it is turned, and the room for their plugs. */
function socketsOf(device: Device, turn: Turn, ends: readonly LeadEnd[], onBoard: Rig): Socket[] {
  const size = sure(sizeOf(device) ?? undefined);
  return spotsOf(device).flatMap((spot): Socket[] => {
    const here = ends.filter(({ l, s }) => isSpot(spot, l[s].jack));
    if (!here.length) return [];
    const p = spotPoint(spot, size);
    const at = turned(p.x, p.y, size, turn);
    const way = turnedWay(p.nx, p.ny, turn);
    const clearance = Math.max(...here.map(({ l, s }) => PLUG_CLEARANCE[plugShape(onBoard, l, s)]));
    return [
      {
        x: at.x,
        y: at.y,
        nx: way.nx,
        ny: way.ny,
        clearance,
        tipX: at.x + way.nx * clearance,
        tipY: at.y + way.ny * clearance,
        jack: spot.jack.id,
      },
    ];
  });
}

function itemOf(
  device: Device,
  board: Board,
  sockets: Socket[],
  pressed: ReadonlyMap<string, number>,
  turn: Turn,
): Item {
  const size = sure(sizeOf(device) ?? undefined);
  const side = turn === 90 || turn === 270;
  const kind = kindOf(device.kind);
  return {
    device,
    turn,
    width: side ? size.depth : size.width,
    depth: side ? size.width : size.depth,
    height: size.height,
    under: device.at
      ? (device.at.under ?? false)
      : kind.outlets !== undefined && size.height <= (board.under ?? 0),
    pinned: device.at?.pinned ?? false,
    sockets,
    switches: switchesOf(device).map((s) => turned(s.x, s.y, size, turn)),
    pressed: pressed.get(device.id) ?? 0,
    radiates: kind.job === 'wireless' || kind.outlets !== undefined,
    sensitive: needOf(device)?.sensitive ?? false,
    grams: gramsOf(device) ?? 0,
  };
}

/** Which sockets the leads join; −1 for an end that is not on the board. */
function runsOf(leads: readonly Lead[], items: readonly Item[]): Run[] {
  const index = new Map(items.map((item, i) => [item.device.id, i]));
  const socketOf = ({ device, jack }: Lead['from']) => {
    const i = index.get(device);
    if (i === undefined) return { i: -1, s: -1 };
    const item = entryAt(items, i);
    const spot = spotsOf(item.device).find((x) => isSpot(x, jack));
    return { i, s: spot ? item.sockets.findIndex((x) => x.jack === spot.jack.id) : -1 };
  };
  return leads.flatMap((lead): Run[] => {
    const [a, b] = [socketOf(lead.from), socketOf(lead.to)];
    if (a.s < 0 && b.s < 0) return [];
    return a.s < 0
      ? [{ lead, a: b.i, aSocket: b.s, b: -1, bSocket: -1 }]
      : [{ lead, a: a.i, aSocket: a.s, b: b.s < 0 ? -1 : b.i, bSocket: b.s }];
  });
}

/** Where the items of a model stand now; unplaced ones are out of the way, behind the board. */
export const placesNow = (model: Model): XY[] =>
  model.items.map((i) =>
    i.device.at?.board === model.board.id
      ? { x: i.device.at.x, y: i.device.at.y }
      : { x: 0, y: -500 },
  );

/** A placement as it is kept: what stays of the old one, with a new corner, turned as the model has it. */
export const placeAt = (model: Model, i: number, at: XY): BoardPlace => {
  const { device, turn, under } = entryAt(model.items, i);
  const { turn: _, ...kept } = { ...device.at };
  return {
    ...kept,
    board: model.board.id,
    x: Math.round(at.x),
    y: Math.round(at.y),
    ...(turn && { turn }),
    ...(under && { under: true }),
  };
};
