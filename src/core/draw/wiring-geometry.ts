import { at as entryAt, sure } from '../outcome';
import { kindOf, type Kind } from '../kinds';
import { blocksOf, jackOf } from '../rig/find';
import type { Device, Lead, Rig } from '../rig/schema';
import { walkOrder } from '../changes/compare';

export const PLACES = ['player', 'floor', 'rack', 'amps', 'house'] as const;
export type Place = (typeof PLACES)[number];
export const PLACE_NAMES: Record<Place, string> = {
  player: 'Player',
  floor: 'Floor',
  rack: 'Rack',
  amps: 'Amps',
  house: 'House',
};

/** A width of 19 inches, in millimetres: what has it belongs in a rack. */
const RACK_MM = 483;

/** Where a device stands: where it was put, else where its kind usually stands. */
export function placeOf(device: Device, kind: Kind = kindOf(device.kind)): Place {
  if (device.place) return device.place;
  if (kind.stands) return kind.stands;
  if (kind.job === 'instrument') return 'player';
  if (['amp', 'cabinet', 'microphone'].includes(kind.job) || kind.destination?.hears === 'stage')
    return kind.size?.width === RACK_MM ? 'rack' : 'amps';
  if (kind.destination)
    return kind.destination.hears === 'house' || kind.destination.hears === 'recorder'
      ? 'house'
      : 'rack';
  return kind.size?.width === RACK_MM || kind.job === 'wireless' ? 'rack' : 'floor';
}

/** Sizes of the drawing in pixels. */
const SIZES = {
  left: 64,
  box: 124,
  letters: 22,
  head: 34,
  jack: 14,
  channel: 40,
  row: 12,
  track: 6,
  band: 12,
};

/** A jack of the drawing; `text` is what of its label fits. */
export interface WiringJack {
  id: string;
  label: string;
  text: string;
  x: number;
  y: number;
  side: 'in' | 'out';
}
export interface WiringBox {
  device: Device;
  x: number;
  y: number;
  width: number;
  height: number;
  jacks: WiringJack[];
  inside: number;
}
export interface WiringWay {
  lead: Lead;
  d: string;
  tag: { x: number; y: number };
}
export interface WiringGeometry {
  boxes: WiringBox[];
  ways: WiringWay[];
  bands: { place: Place; y: number; height: number }[];
  width: number;
  height: number;
}

/**
 * Gives each of a list of intervals a track, so that none overlaps another on its track; returns
 * tracks and how many there are.
 */
function tracksFor(intervals: readonly (readonly [number, number])[]): {
  track: number[];
  count: number;
} {
  const ends: number[] = [];
  const track = intervals.map(() => 0);
  for (const i of intervals
    .map((_, k) => k)
    .sort((a, b) => entryAt(intervals, a)[0] - entryAt(intervals, b)[0])) {
    const [from, to] = entryAt(intervals, i);
    let t = ends.findIndex((end) => end < from);
    if (t < 0) t = ends.push(-Infinity) - 1;
    ends[t] = to;
    track[i] = t;
  }
  return { track, count: ends.length };
}

/**
 * Draws the wiring by place: a band for the player, the floor, the rack, the amplifiers and the
 * house, devices in the order of the walk, every lead from its jack to its jack along the channels
 * between them. It depends on nothing but the rig, so the same rig is drawn the same way each time.
 * Blocks inside a host are not drawn; links inside it are no leads.
 */
export function placeWiring(rig: Rig, width: number): WiringGeometry {
  const order = walkOrder(rig);
  const rank = (d: Device) => (order.includes(d.id) ? order.indexOf(d.id) : order.length);
  const perRow = Math.max(
    2,
    Math.floor((width - SIZES.left - SIZES.channel) / (SIZES.box + SIZES.channel)),
  );
  const leads = rig.leads.filter((l) => l.type !== 'inside');
  const cells = new Map<string, { row: number; column: number; place: Place }>();
  let row = 0;
  const rows: Place[] = [];
  for (const place of PLACES) {
    const here = rig.devices
      .filter((d) => d.host === undefined && placeOf(d) === place)
      .sort((a, b) => rank(a) - rank(b));
    here.forEach((d, i) =>
      cells.set(d.id, { row: row + Math.floor(i / perRow), column: i % perRow, place }),
    );
    const count = Math.ceil(here.length / perRow);
    for (let i = 0; i < count; i++) rows.push(place);
    row += count;
  }

  const used = new Map<string, { in: string[]; out: string[] }>();
  for (const l of leads) {
    for (const [end, side] of [
      [l.from, 'out'],
      [l.to, 'in'],
    ] as const) {
      const mine = used.get(end.device) ?? { in: [], out: [] };
      if (!mine[side].includes(end.jack)) mine[side].push(end.jack);
      used.set(end.device, mine);
    }
  }
  const labelOf = (id: string, jack: string) =>
    jackOf(sure(rig.devices.find((d) => d.id === id)), jack)?.label ?? jack;
  // Inputs beside outputs where both fit, else outputs below inputs.
  const isStacked = (id: string) => {
    const { in: ins = [], out: outs = [] } = used.get(id) ?? {};
    const longest = (jacks: string[]) => Math.max(0, ...jacks.map((j) => labelOf(id, j).length));
    return ins.length > 0 && outs.length > 0 && longest(ins) + longest(outs) > SIZES.letters;
  };
  const stacked = new Map([...cells.keys()].map((id) => [id, isStacked(id)]));
  const boxHeight = (id: string) => {
    const [ins, outs] = [used.get(id)?.in.length ?? 0, used.get(id)?.out.length ?? 0];
    return SIZES.head + SIZES.jack * (stacked.get(id) ? ins + outs : Math.max(1, ins, outs)) + 4;
  };

  // Ways in cells first; how wide and high the channels are follows from how many run in each.
  const routes = leads.flatMap((lead) => {
    const [a, b] = [cells.get(lead.from.device), cells.get(lead.to.device)];
    return a && b ? [{ lead, a, b, straight: a.row === b.row && b.column === a.column + 1 }] : [];
  });
  const verticals = Array.from(
    { length: perRow + 1 },
    (): { route: number; end: 'out' | 'in'; span: [number, number] }[] => [],
  );
  const horizontals = rows.map((): { route: number; span: [number, number] }[] => []);
  routes.forEach(({ a, b, straight }, i) => {
    entryAt(verticals, a.column + 1).push({
      route: i,
      end: 'out',
      span: straight
        ? [a.row, a.row]
        : [Math.min(a.row, b.row - 0.5), Math.max(a.row, b.row - 0.5)],
    });
    if (straight) return;
    entryAt(horizontals, b.row).push({
      route: i,
      span: [Math.min(a.column + 1, b.column), Math.max(a.column + 1, b.column)],
    });
    entryAt(verticals, b.column).push({ route: i, end: 'in', span: [b.row - 0.5, b.row] });
  });
  const vTracks = verticals.map((v) => tracksFor(v.map((x) => x.span)));
  const hTracks = horizontals.map((h) => tracksFor(h.map((x) => x.span)));

  const rowY: number[] = [];
  const bands: WiringGeometry['bands'] = [];
  let y = 8;
  rows.forEach((place, r) => {
    if (rows[r - 1] !== place) {
      y += SIZES.band;
      bands.push({ place, y, height: 0 });
    }
    y += SIZES.row + SIZES.track * entryAt(hTracks, r).count;
    rowY.push(y);
    y += Math.max(...[...cells].filter(([, c]) => c.row === r).map(([id]) => boxHeight(id)));
    sure(bands.at(-1)).height = y + 6 - sure(bands.at(-1)).y;
    y += 8;
  });

  // A channel grows with what runs in it, so that leads stay apart.
  const channel = vTracks.map((v) => Math.max(SIZES.channel, 10 + SIZES.track * (v.count + 1)));
  const columnX = (c: number) =>
    SIZES.left + c * SIZES.box + channel.slice(0, c + 1).reduce((sum, w) => sum + w, 0);
  const boxes = [...cells].map(([id, c]): WiringBox => {
    const device = sure(rig.devices.find((d) => d.id === id));
    const [x, top] = [columnX(c.column), entryAt(rowY, c.row)];
    const below = stacked.get(id) ? (used.get(id)?.in.length ?? 0) : 0;
    const jacks = (['in', 'out'] as const).flatMap((side) =>
      (used.get(id)?.[side] ?? []).map((jack, i): WiringJack => {
        const label = labelOf(id, jack);
        const text = label.length > SIZES.letters ? `${label.slice(0, SIZES.letters - 1)}…` : label;
        return {
          id: jack,
          label,
          text,
          side,
          x: side === 'in' ? x : x + SIZES.box,
          y: top + SIZES.head + SIZES.jack * (i + (side === 'out' ? below : 0)) + SIZES.jack / 2,
        };
      }),
    );
    return {
      device,
      x,
      y: top,
      width: SIZES.box,
      height: boxHeight(id),
      jacks,
      inside: blocksOf(rig, id).length,
    };
  });
  const jackAt = new Map(
    boxes.flatMap((b) => b.jacks.map((j) => [`${b.device.id}/${j.id}/${j.side}`, j])),
  );
  const vx = (c: number, route: number, end: 'out' | 'in') => {
    const at = entryAt(verticals, c).findIndex((v) => v.route === route && v.end === end);
    return (
      columnX(c) -
      entryAt(channel, c) +
      5 +
      ((entryAt(channel, c) - 10) * (entryAt(entryAt(vTracks, c).track, at) + 1)) /
        (entryAt(vTracks, c).count + 1)
    );
  };
  const hy = (r: number, route: number) =>
    entryAt(rowY, r) -
    6 -
    SIZES.track *
      entryAt(
        entryAt(hTracks, r).track,
        entryAt(horizontals, r).findIndex((h) => h.route === route),
      );
  const ways = routes.map(({ lead, a, b, straight }, i): WiringWay => {
    const from = sure(jackAt.get(`${lead.from.device}/${lead.from.jack}/out`));
    const to = sure(jackAt.get(`${lead.to.device}/${lead.to.jack}/in`));
    const x1 = vx(a.column + 1, i, 'out');
    if (straight)
      return {
        lead,
        d: `M${from.x} ${from.y}H${x1}V${to.y}H${to.x}`,
        tag: { x: x1, y: (from.y + to.y) / 2 },
      };
    const [h, x2] = [hy(b.row, i), vx(b.column, i, 'in')];
    return {
      lead,
      d: `M${from.x} ${from.y}H${x1}V${h}H${x2}V${to.y}H${to.x}`,
      tag: { x: x2, y: (h + to.y) / 2 },
    };
  });
  return { boxes, ways, bands, width: columnX(perRow), height: y + 8 };
}
