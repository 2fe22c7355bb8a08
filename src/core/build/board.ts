import { byId } from '../rig/find';
import { sure, at as entryAt } from '../outcome';
import { kindOf } from '../kinds';
import type { Board, BoardPlace, Device, Lead, Rig } from '../rig/schema';
import {
  isSpot,
  PLUG_CLEARANCE,
  PLUG_WIDTH,
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

/** Boards in sizes that are common, in mm. Rails run from side to side; a plate has openings instead. */
export const BOARD_SIZES: {
  id: string;
  label: string;
  board: Pick<Board, 'width' | 'depth' | 'rails' | 'raised' | 'under' | 'grams'>;
}[] = [
  {
    id: 'small',
    label: 'Small, 400 by 180 mm, three rails',
    board: { width: 400, depth: 180, rails: rails(180, 3), grams: 1400 },
  },
  {
    id: 'medium',
    label: 'Medium, 600 by 320 mm, four rails, rear row raised',
    board: {
      width: 600,
      depth: 320,
      rails: rails(320, 4),
      raised: [{ y: 0, depth: 150, by: 40 }],
      under: 50,
      grams: 2900,
    },
  },
  {
    id: 'large',
    label: 'Large, 800 by 420 mm, five rails, rear row raised',
    board: {
      width: 800,
      depth: 420,
      rails: rails(420, 5),
      raised: [{ y: 0, depth: 180, by: 50 }],
      under: 60,
      grams: 4600,
    },
  },
  {
    id: 'wide',
    label: 'Wide, 1000 by 400 mm, five rails, rear row raised',
    board: {
      width: 1000,
      depth: 400,
      rails: rails(400, 5),
      raised: [{ y: 0, depth: 170, by: 50 }],
      under: 60,
      grams: 5800,
    },
  },
  {
    id: 'plate',
    label: 'Flat plate, 600 by 300 mm, one row of openings',
    board: { width: 600, depth: 300, rails: [{ y: 145, depth: 10 }], grams: 2200 },
  },
];

function rails(depth: number, count: number): Board['rails'] {
  const gap = (depth - count * 40) / (count - 1);
  return Array.from({ length: count }, (_, i) => ({ y: Math.round(i * (40 + gap)), depth: 40 }));
}

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
  turn: 0 | 90 | 180 | 270;
}

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
}

export interface XY {
  x: number;
  y: number;
}

/**
 * Distances in mm: between switch centres, from wireless and supplies to high gain, what counts as
 * in front of a switch to each side.
 */
export const SWITCH_GAP = 60;
export const RADIO_GAP = 100;
const FOOT_HALF = 40;
/** Half the width of a plug. */
export const PLUG_ROOM = PLUG_WIDTH / 2;
const LONGEST = Math.max(...Object.values(PLUG_CLEARANCE));
/** From the deck down to the rails and up again at the other end, in mm each. */
const DROP = 20;

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
  const index = new Map(devices.map((d, i) => [d.id, i]));
  const leads = rig.leads
    .filter(
      (l) =>
        l.type !== 'inside' &&
        l.type !== 'air' &&
        (index.has(l.from.device) || index.has(l.to.device)),
    )
    .sort(byId);
  const onBoard: Rig = {
    ...rig,
    devices: rig.devices.map((d) =>
      index.has(d.id) && !d.at ? { ...d, at: { board: board.id, x: 0, y: 0 } } : d,
    ),
  };
  const items = devices.map((device): Item => {
    const size = sure(sizeOf(device) ?? undefined);
    const turn = device.at?.turn ?? 0;
    const side = turn === 90 || turn === 270;
    const need = needOf(device);
    const kind = kindOf(device.kind);
    const used = spotsOf(device).flatMap((spot): Socket[] => {
      const here = leads.flatMap((l) =>
        (['from', 'to'] as const).flatMap((s) =>
          l[s].device === device.id && isSpot(spot, l[s].jack) ? [{ l, s }] : [],
        ),
      );
      if (!here.length) return [];
      const p = spotPoint(spot, size);
      const at = turned(p.x, p.y, size, turn);
      const way = turnedWay(p.nx, p.ny, turn);
      const clearance = Math.max(
        ...here.map(({ l, s }) => PLUG_CLEARANCE[plugShape(onBoard, l, s)]),
      );
      return [
        {
          ...at,
          ...way,
          clearance,
          tipX: at.x + way.nx * clearance,
          tipY: at.y + way.ny * clearance,
          jack: spot.jack.id,
        },
      ];
    });
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
      sockets: used,
      switches: switchesOf(device).map((s) => turned(s.x, s.y, size, turn)),
      pressed: pressed.get(device.id) ?? 0,
      radiates: kind.job === 'wireless' || kind.outlets !== undefined,
      sensitive: need?.sensitive ?? false,
      grams: gramsOf(device) ?? 0,
    };
  });
  const socketOf = (id: string, jack: string) => {
    const i = index.get(id);
    if (i === undefined) return { i: -1, s: -1 };
    const spots = spotsOf(entryAt(devices, i));
    const spot = spots.find((x) => isSpot(x, jack));
    return {
      i,
      s: spot ? entryAt(items, i).sockets.findIndex((x) => x.jack === spot.jack.id) : -1,
    };
  };
  const runs = leads.flatMap((lead): Run[] => {
    const [a, b] = [
      socketOf(lead.from.device, lead.from.jack),
      socketOf(lead.to.device, lead.to.jack),
    ];
    if (a.s < 0 && b.s < 0) return [];
    return a.s < 0
      ? [{ lead, a: b.i, aSocket: b.s, b: -1, bSocket: -1 }]
      : [{ lead, a: a.i, aSocket: a.s, b: b.s < 0 ? -1 : b.i, bSocket: b.s }];
  });
  return {
    board,
    items,
    runs,
    lanes: [6, ...board.rails.map((r) => r.y + r.depth / 2), board.depth - 6],
  };
}

/** Where a run goes: its corners from plug to plug, and how long the lead is from plug to plug, in mm. */
export interface Path {
  points: XY[];
  mm: number;
  below: boolean;
}

/**
 * How high an item stands: the raised strip under the most of it, in mm; and whether it stands half
 * off one.
 */
export function standing(model: Model, item: Item, at: XY): { up: number; half: boolean } {
  let up = 0;
  let half = false;
  for (const r of model.board.raised ?? []) {
    const overlap = Math.min(at.y + item.depth, r.y + r.depth) - Math.max(at.y, r.y);
    if (overlap <= 0) continue;
    if (overlap > item.depth / 2) up = r.by;
    if (overlap < item.depth - 5 && overlap > 5) half = true;
  }
  return item.under ? { up: -DROP, half: false } : { up, half };
}

const crosses = (
  ax: number,
  ay: number,
  bx: number,
  by: number,
  left: number,
  top: number,
  right: number,
  bottom: number,
): boolean =>
  Math.max(ax, bx) > left + 0.5 &&
  Math.min(ax, bx) < right - 0.5 &&
  Math.max(ay, by) > top + 0.5 &&
  Math.min(ay, by) < bottom - 0.5;

/** Whether a straight piece on the deck runs into a body. */
function blocked(
  model: Model,
  at: readonly XY[],
  ax: number,
  ay: number,
  bx: number,
  by: number,
): boolean {
  for (let i = 0; i < model.items.length; i++) {
    const item = entryAt(model.items, i);
    if (item.under) continue;
    if (
      crosses(
        ax,
        ay,
        bx,
        by,
        entryAt(at, i).x,
        entryAt(at, i).y,
        entryAt(at, i).x + item.width,
        entryAt(at, i).y + item.depth,
      )
    )
      return true;
  }
  return false;
}

/**
 * The way of one lead. On the deck from plug to plug in at most two straight pieces where no body
 * is in the way; else down, along a rail or an edge, and up again. A lead that goes elsewhere
 * leaves at the nearest of the rear and side edges.
 */
export function pathOf(model: Model, at: readonly XY[], run: Run): Path {
  const from = entryAt(entryAt(model.items, run.a).sockets, run.aSocket);
  const start = entryAt(at, run.a);
  const [ax, ay] = [start.x + from.tipX, start.y + from.tipY];
  const jackA = { x: start.x + from.x, y: start.y + from.y };
  if (run.b < 0) {
    const { width } = model.board;
    const ways = [
      { x: ax, y: 0 },
      { x: 0, y: ay },
      { x: width, y: ay },
    ]
      .map((p) => ({ p, mm: Math.abs(p.x - ax) + Math.abs(p.y - ay) }))
      .sort((a, b) => a.mm - b.mm);
    const best = ways.find((w) => !blocked(model, at, ax, ay, w.p.x, w.p.y));
    if (best) return { points: [jackA, { x: ax, y: ay }, best.p], mm: best.mm, below: false };
    return {
      points: [jackA, { x: ax, y: ay }, entryAt(ways, 0).p],
      mm: entryAt(ways, 0).mm + DROP,
      below: true,
    };
  }
  const to = entryAt(entryAt(model.items, run.b).sockets, run.bSocket);
  const end = entryAt(at, run.b);
  const [bx, by] = [end.x + to.tipX, end.y + to.tipY];
  const jackB = { x: end.x + to.x, y: end.y + to.y };
  const climb = Math.abs(
    standing(model, entryAt(model.items, run.a), start).up -
      standing(model, entryAt(model.items, run.b), end).up,
  );
  const across = Math.abs(ax - bx);
  if (!entryAt(model.items, run.a).under && !entryAt(model.items, run.b).under) {
    for (const c of [
      { x: bx, y: ay },
      { x: ax, y: by },
    ]) {
      if (!blocked(model, at, ax, ay, c.x, c.y) && !blocked(model, at, c.x, c.y, bx, by))
        return {
          points: [jackA, { x: ax, y: ay }, c, { x: bx, y: by }, jackB],
          mm: across + Math.abs(ay - by) + climb,
          below: false,
        };
    }
  }
  let lane = entryAt(model.lanes, 0);
  let best = Infinity;
  for (const l of model.lanes) {
    const mm = Math.abs(ay - l) + Math.abs(by - l);
    if (mm < best - 1e-9) [lane, best] = [l, mm];
  }
  return {
    points: [
      jackA,
      { x: ax, y: ay },
      { x: ax, y: lane },
      { x: bx, y: lane },
      { x: bx, y: by },
      jackB,
    ],
    mm: best + across + 2 * DROP + climb,
    below: true,
  };
}

/** What is wrong with a place: which item, with which other one (−1 for the board), and by how many mm. */
export interface Clash {
  what:
    'overlap' | 'outside' | 'plug' | 'plugs' | 'too-high' | 'half' | 'reach' | 'switches' | 'radio';
  a: number;
  b: number;
  mm: number;
  jack?: string;
}

/**
 * Where everything stands, judged: mm of lead, how often leads cross, what is wrong, and all of it
 * as one figure (the lower the better).
 */
export interface Judged {
  mm: number;
  crossings: number;
  clashes: Clash[];
  paths: Path[];
  cost: number;
}

/**
 * What one of each costs, in mm of lead. Bodies or plugs that hit something outweigh everything;
 * the rest is a judgement, told in docs/formulas.md.
 */
export const LAYOUT_PRICE = {
  hit: 100_000,
  half: 2000,
  reach: 600,
  switches: 600,
  radio: 300,
  crossing: 30,
  foot: 0.15,
  heavy: 0.05,
};

/** What cannot be built so. */
export const HITS: ReadonlySet<Clash['what']> = new Set<Clash['what']>([
  'overlap',
  'outside',
  'plug',
  'plugs',
  'too-high',
]);

/** Judges places. `at` holds the rear left corner of each item, in mm. */
export function judge(model: Model, at: readonly XY[]): Judged {
  const clashes = clashesOf(model, at);
  const paths = model.runs.map((r) => pathOf(model, at, r));
  const mm = paths.reduce((s, p) => s + p.mm, 0);
  const crossings = crossingsOf(paths);
  let cost = mm + crossings * LAYOUT_PRICE.crossing + softCost(model, at);
  for (const c of clashes)
    cost += HITS.has(c.what)
      ? LAYOUT_PRICE.hit + 10 * c.mm
      : c.what === 'half'
        ? LAYOUT_PRICE.half
        : c.what === 'reach'
          ? LAYOUT_PRICE.reach
          : c.what === 'switches'
            ? LAYOUT_PRICE.switches
            : LAYOUT_PRICE.radio;
  return { mm, crossings, clashes, paths, cost };
}

/** What is pressed most near the foot, what is heavy near the middle. */
function softCost(model: Model, at: readonly XY[]): number {
  const { board } = model;
  const foot = board.width * (board.foot === 'left' ? 0.35 : 0.65);
  let cost = 0;
  model.items.forEach((item, i) => {
    if (item.pressed)
      cost +=
        item.pressed *
        LAYOUT_PRICE.foot *
        (Math.abs(entryAt(at, i).x + item.width / 2 - foot) +
          (board.depth - entryAt(at, i).y - item.depth));
    cost +=
      (item.grams / 1000) *
      LAYOUT_PRICE.heavy *
      Math.abs(entryAt(at, i).x + item.width / 2 - board.width / 2);
  });
  return cost;
}

/**
 * A bound that no layout's cost goes below: leads as the crow walks, and the pull of foot and
 * weight. Cheap.
 */
export function costBound(model: Model, at: readonly XY[]): number {
  let mm = 0;
  for (const r of model.runs) {
    const a = entryAt(entryAt(model.items, r.a).sockets, r.aSocket);
    const [ax, ay] = [entryAt(at, r.a).x + a.tipX, entryAt(at, r.a).y + a.tipY];
    if (r.b < 0) {
      mm += Math.min(Math.abs(ay), Math.abs(ax), Math.abs(model.board.width - ax));
      continue;
    }
    const b = entryAt(entryAt(model.items, r.b).sockets, r.bSocket);
    mm += Math.abs(ax - entryAt(at, r.b).x - b.tipX) + Math.abs(ay - entryAt(at, r.b).y - b.tipY);
  }
  return mm + softCost(model, at);
}

function clashesOf(model: Model, at: readonly XY[]): Clash[] {
  const { items, board } = model;
  const out: Clash[] = [];
  const levels = items.map((item, i) => standing(model, item, entryAt(at, i)));
  const zones: (ReturnType<typeof zonesOf> | undefined)[] = [];
  for (let i = 0; i < items.length; i++) {
    const [a, p] = [entryAt(items, i), entryAt(at, i)];
    const over = Math.max(-p.x, -p.y, p.x + a.width - board.width, p.y + a.depth - board.depth);
    if (over > 0.5) out.push({ what: 'outside', a: i, b: -1, mm: over });
    if (a.under && a.height > (board.under ?? 0))
      out.push({ what: 'too-high', a: i, b: -1, mm: a.height - (board.under ?? 0) });
    if (entryAt(levels, i).half) out.push({ what: 'half', a: i, b: -1, mm: 0 });
    for (let j = i + 1; j < items.length; j++) {
      const [b, q] = [entryAt(items, j), entryAt(at, j)];
      if (a.under === b.under) {
        const x = Math.min(p.x + a.width, q.x + b.width) - Math.max(p.x, q.x);
        const y = Math.min(p.y + a.depth, q.y + b.depth) - Math.max(p.y, q.y);
        if (x > 0.5 && y > 0.5) out.push({ what: 'overlap', a: i, b: j, mm: Math.min(x, y) });
        else if (
          x > -2 * LONGEST &&
          y > -2 * LONGEST &&
          entryAt(levels, i).up === entryAt(levels, j).up
        ) {
          const clash = plugClash(i, (zones[i] ??= zonesOf(a, p)), j, (zones[j] ??= zonesOf(b, q)));
          if (clash) out.push(clash);
        }
      }
      if ((a.radiates && b.sensitive) || (b.radiates && a.sensitive)) {
        const dx = Math.max(0, Math.max(p.x, q.x) - Math.min(p.x + a.width, q.x + b.width));
        const dy = Math.max(0, Math.max(p.y, q.y) - Math.min(p.y + a.depth, q.y + b.depth));
        const gap = Math.hypot(dx, dy);
        if (gap < RADIO_GAP)
          out.push({
            what: 'radio',
            a: a.radiates ? i : j,
            b: a.radiates ? j : i,
            mm: RADIO_GAP - gap,
          });
      }
      if (a.pressed && b.pressed) {
        let near = Infinity;
        for (const s of a.switches)
          for (const t of b.switches)
            near = Math.min(near, Math.hypot(p.x + s.x - q.x - t.x, p.y + s.y - q.y - t.y));
        if (near < SWITCH_GAP - 0.5)
          out.push({ what: 'switches', a: i, b: j, mm: SWITCH_GAP - near });
      }
    }
    if (a.pressed && a.under) out.push({ what: 'reach', a: i, b: -1, mm: 0 });
    else if (a.pressed) {
      // In the front row, or raised above what stands in front.
      const behind = items.findIndex(
        (b, j) =>
          j !== i &&
          !b.under &&
          entryAt(levels, j).up >= entryAt(levels, i).up &&
          entryAt(at, j).y >= p.y + a.depth - 5 &&
          a.switches.some(
            (s) =>
              p.x + s.x + FOOT_HALF > entryAt(at, j).x &&
              p.x + s.x - FOOT_HALF < entryAt(at, j).x + b.width,
          ),
      );
      if (behind >= 0) out.push({ what: 'reach', a: i, b: behind, mm: 0 });
    }
  }
  return out;
}

/** The room that a plug takes, and a body: edges in mm. */
interface Zone {
  left: number;
  right: number;
  top: number;
  bottom: number;
  jack: string;
}

const deep = (a: Zone, b: Zone): number =>
  Math.min(
    Math.min(a.right, b.right) - Math.max(a.left, b.left),
    Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top),
  );

/** The room of an item's body, and of the plugs in it. */
function zonesOf(item: Item, at: XY): { body: Zone; plugs: Zone[] } {
  return {
    body: { left: at.x, right: at.x + item.width, top: at.y, bottom: at.y + item.depth, jack: '' },
    plugs: item.sockets.map((s) => {
      const [x, y] = [at.x + s.x, at.y + s.y];
      const [tx, ty] = [at.x + s.tipX, at.y + s.tipY];
      return {
        left: Math.min(x, tx) - (s.nx ? 0 : PLUG_ROOM),
        right: Math.max(x, tx) + (s.nx ? 0 : PLUG_ROOM),
        top: Math.min(y, ty) - (s.ny ? 0 : PLUG_ROOM),
        bottom: Math.max(y, ty) + (s.ny ? 0 : PLUG_ROOM),
        jack: s.jack,
      };
    }),
  };
}

/**
 * Whether plugs of one item hit the body of another, or its plugs: one for a pair, the worst, for
 * what cures it cures the others.
 */
function plugClash(
  i: number,
  a: ReturnType<typeof zonesOf>,
  j: number,
  b: ReturnType<typeof zonesOf>,
): Clash | undefined {
  let worst: Clash | undefined;
  for (const z of a.plugs) {
    const mm = deep(z, b.body);
    if (mm > 0.5 && (!worst || mm > worst.mm))
      worst = { what: 'plug', a: i, b: j, mm, jack: z.jack };
  }
  for (const z of b.plugs) {
    const mm = deep(z, a.body);
    if (mm > 0.5 && (!worst || mm > worst.mm))
      worst = { what: 'plug', a: j, b: i, mm, jack: z.jack };
  }
  if (worst) return worst;
  for (const z of a.plugs)
    for (const y of b.plugs) {
      const mm = deep(z, y);
      if (mm > 0.5 && (!worst || mm > worst.mm))
        worst = { what: 'plugs', a: i, b: j, mm, jack: z.jack };
    }
  return worst;
}

/**
 * How often leads cross: pieces of different leads that meet at right angles, on the same side of
 * the deck.
 */
export function crossingsOf(paths: readonly Path[]): number {
  // Pieces that lie, and pieces that stand: [path, side, at, from, to].
  const flat: number[] = [];
  const upright: number[] = [];
  paths.forEach((path, n) => {
    const side = path.below ? 1 : 0;
    for (let k = 1; k < path.points.length; k++) {
      const [p, q] = [entryAt(path.points, k - 1), entryAt(path.points, k)];
      if (p.y === q.y && p.x !== q.x)
        flat.push(n, side, p.y, Math.min(p.x, q.x), Math.max(p.x, q.x));
      else if (p.x === q.x && p.y !== q.y)
        upright.push(n, side, p.x, Math.min(p.y, q.y), Math.max(p.y, q.y));
    }
  });
  let count = 0;
  for (let i = 0; i < flat.length; i += 5) {
    const [n, side, y, from, to] = [
      entryAt(flat, i),
      entryAt(flat, i + 1),
      entryAt(flat, i + 2),
      entryAt(flat, i + 3),
      entryAt(flat, i + 4),
    ];
    for (let j = 0; j < upright.length; j += 5) {
      if (
        entryAt(upright, j + 2) > from &&
        entryAt(upright, j + 2) < to &&
        entryAt(upright, j + 3) < y &&
        entryAt(upright, j + 4) > y &&
        upright[j + 1] === side &&
        upright[j] !== n
      )
        count++;
    }
  }
  return count;
}

/** Where the items of a model stand now; unplaced ones are out of the way, behind the board. */
export const placesNow = (model: Model): XY[] =>
  model.items.map((i) =>
    i.device.at?.board === model.board.id
      ? { x: i.device.at.x, y: i.device.at.y }
      : { x: 0, y: -500 },
  );

/** A placement as it is kept: what stays of the old one, with a new corner. */
export const placeAt = (model: Model, i: number, at: XY): BoardPlace => {
  const item = entryAt(model.items, i);
  return {
    ...item.device.at,
    board: model.board.id,
    x: Math.round(at.x),
    y: Math.round(at.y),
    ...(item.under && { under: true }),
  };
};
