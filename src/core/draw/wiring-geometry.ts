import { at as entryAt, sure } from '../outcome';
import { blocksOf, jackOf } from '../rig/find';
import { kindOf } from '../kinds';
import type { Device, Lead, Rig } from '../rig/schema';
import { freeJacks, placeOf as whereOf } from '../rig/joining';
import { type Place, placeOf, PLACES } from '../rig/stands-where';
import { walkOrder } from '../walk';

/** Sizes of the drawing in pixels; where free jacks are chosen in it, each is as high as a finger needs. */
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
  /** What leads inside a host, below its jacks. */
  inside: 0,
};
const TO_CHOOSE = { ...SIZES, box: 150, jack: 24, inside: 26 };

/** A jack of the drawing; `text` is what of its label fits. */
export interface WiringJack {
  id: string;
  label: string;
  text: string;
  x: number;
  y: number;
  side: 'in' | 'out';
  /** Whether a lead can be plugged in; only said where free jacks are drawn. */
  free?: true;
  /** Whether it holds one already; only said of one that takes another. */
  held?: true;
}
export interface WiringBox {
  device: Device;
  x: number;
  y: number;
  width: number;
  height: number;
  jacks: WiringJack[];
  /** How many blocks lie inside it, where it is a host that is drawn from outside. */
  inside?: number;
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

interface Tracks {
  track: number[];
  count: number;
}

/**
 * Gives each of a list of intervals a track, so that none overlaps another on its track; returns
 * tracks and how many there are.
 */
function tracksFor(intervals: readonly (readonly [number, number])[]): Tracks {
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

/** Where a device stands on the grid of boxes. */
interface Cell {
  row: number;
  column: number;
  place: Place;
}

/** A lead between two cells; `straight` goes to the next box of its row. */
interface Route {
  lead: Lead;
  a: Cell;
  b: Cell;
  straight: boolean;
}

/** A stretch of a route in a channel beside a column, in rows; its end at an output or an input. */
interface Upright {
  route: number;
  end: 'out' | 'in';
  span: [number, number];
}

/**
 * Draws the wiring by place: a band for the player, the floor, the rack, the amplifiers and the
 * house, devices in the order of the walk, every lead from its jack to its jack along the channels
 * between them. It depends on nothing but the rig, so the same rig is drawn the same way each time.
 *
 * @param looked.free whether jacks that hold no lead are drawn too, after those that do
 * @param looked.inside the host whose inside is drawn instead: itself with its inner jacks, its
 *   blocks and the links between them, in one band. Nothing for the stage, where blocks are not drawn.
 */
export const placeWiring = (
  rig: Rig,
  width: number,
  { free = false, inside }: { free?: boolean; inside?: string } = {},
): WiringGeometry => new WiringDrawing(rig, width, free, inside ?? '').geometry();

/**
 * Devices get cells first, then leads their ways through the channels between cells; how wide and
 * high the channels are follows from how many run in each, and everything's place from that.
 */
class WiringDrawing {
  private readonly sizes: typeof SIZES;
  private readonly leads: Lead[];
  private readonly perRow: number;
  private readonly cells = new Map<string, Cell>();
  private readonly rows: Place[] = [];
  /** Jacks that are drawn, by device and side: those that hold a lead, and free ones where they are asked for. */
  private readonly used = new Map<string, { in: string[]; out: string[] }>();
  /** Jacks that hold a lead. */
  private readonly held: ReadonlySet<string>;
  /** Jacks into which a lead can be plugged, where they are drawn. */
  private readonly free = new Set<string>();
  private readonly stacked: ReadonlyMap<string, boolean>;
  private readonly routes: Route[];
  private readonly verticals: Upright[][];
  private readonly horizontals: { route: number; span: [number, number] }[][];
  private readonly vTracks: Tracks[];
  private readonly hTracks: Tracks[];
  /** Widths of the channels left of each column. */
  private readonly channel: number[];

  constructor(
    private readonly rig: Rig,
    width: number,
    free: boolean,
    /** The host whose inside is drawn, or nothing for the stage. */
    private readonly within: string,
  ) {
    this.sizes = free ? TO_CHOOSE : SIZES;
    this.leads = rig.leads.filter((l) => whereOf(rig, l.from) === within);
    this.perRow = Math.max(
      2,
      Math.floor(
        (width - this.sizes.left - this.sizes.channel) / (this.sizes.box + this.sizes.channel),
      ),
    );
    this.placeCells();
    this.findUsed();
    this.held = new Set(
      [...this.used].flatMap(([id, j]) => [...j.in, ...j.out].map((x) => `${id}/${x}`)),
    );
    if (free) this.findFree();
    this.stacked = new Map([...this.cells.keys()].map((id) => [id, this.isStacked(id)]));
    this.routes = this.leads.flatMap((lead) => {
      const [a, b] = [this.cells.get(lead.from.device), this.cells.get(lead.to.device)];
      return a && b ? [{ lead, a, b, straight: a.row === b.row && b.column === a.column + 1 }] : [];
    });
    this.verticals = Array.from({ length: this.perRow + 1 }, () => []);
    this.horizontals = this.rows.map(() => []);
    this.routes.forEach((route, i) => this.layRoute(route, i));
    this.vTracks = this.verticals.map((v) => tracksFor(v.map((x) => x.span)));
    this.hTracks = this.horizontals.map((h) => tracksFor(h.map((x) => x.span)));
    // A channel grows with what runs in it, so that leads stay apart.
    this.channel = this.vTracks.map((v) =>
      Math.max(this.sizes.channel, 10 + this.sizes.track * (v.count + 1)),
    );
  }

  geometry(): WiringGeometry {
    const { rowY, bands, height } = this.stackRows();
    const boxes = [...this.cells].map(([id, cell]) => this.box(id, cell, entryAt(rowY, cell.row)));
    const jackAt = new Map(
      boxes.flatMap((b) => b.jacks.map((j) => [`${b.device.id}/${j.id}/${j.side}`, j])),
    );
    const ways = this.routes.map((route, i) => this.way(route, i, rowY, jackAt));
    return { boxes, ways, bands, width: this.columnX(this.perRow), height };
  }

  /** Rows of boxes place by place, each place's devices in the order of the walk. */
  private placeCells(): void {
    const order = walkOrder(this.rig);
    const rank = (d: Device) => (order.includes(d.id) ? order.indexOf(d.id) : order.length);
    for (const place of PLACES) {
      const here = this.rig.devices
        .filter((d) => this.isDrawn(d) && placeOf(this.standing(d)) === place)
        .sort((a, b) => rank(a) - rank(b));
      const first = this.rows.length;
      here.forEach((d, i) => {
        const [row, column] = [first + Math.floor(i / this.perRow), i % this.perRow];
        this.cells.set(d.id, { row, column, place });
      });
      for (let i = 0; i < here.length; i += this.perRow) this.rows.push(place);
    }
  }

  /** On the stage what lies in no host; inside a host itself and what lies in it. */
  private isDrawn({ id, host = '' }: Device): boolean {
    return host === this.within || id === this.within;
  }

  /** What says where a device stands: a block is where its host is. */
  private standing(d: Device): Device {
    return d.host === undefined ? d : this.device(d.host);
  }

  private findUsed(): void {
    for (const l of this.leads) {
      for (const [end, side] of [
        [l.from, 'out'],
        [l.to, 'in'],
      ] as const) {
        const mine = this.used.get(end.device) ?? { in: [], out: [] };
        if (!mine[side].includes(end.jack)) mine[side].push(end.jack);
        this.used.set(end.device, mine);
      }
    }
  }

  private findFree(): void {
    for (const side of ['out', 'in'] as const)
      for (const { device, jacks } of freeJacks(this.rig, side, this.within)) {
        const mine = this.used.get(device.id) ?? { in: [], out: [] };
        for (const { id } of jacks) {
          this.free.add(`${device.id}/${id}`);
          // A jack that is both is drawn once.
          if (![...mine.in, ...mine.out].includes(id)) mine[side].push(id);
        }
        this.used.set(device.id, mine);
      }
  }

  private labelOf(id: string, jack: string): string {
    return jackOf(this.device(id), jack)?.label ?? jack;
  }

  private device(id: string): Device {
    return sure(this.rig.devices.find((d) => d.id === id));
  }

  /** Inputs beside outputs where both fit, else outputs below inputs. */
  private isStacked(id: string): boolean {
    const { in: ins, out: outs } = this.jacksOf(id);
    const longest = (jacks: string[]) =>
      Math.max(0, ...jacks.map((j) => this.labelOf(id, j).length));
    return ins.length > 0 && outs.length > 0 && longest(ins) + longest(outs) > this.sizes.letters;
  }

  private jacksOf(id: string): { in: string[]; out: string[] } {
    return this.used.get(id) ?? { in: [], out: [] };
  }

  private boxHeight(id: string): number {
    const [ins, outs] = [this.jacksOf(id).in.length, this.jacksOf(id).out.length];
    const high = this.stacked.get(id) ? ins + outs : Math.max(1, ins, outs);
    const inside = this.blocksIn(id) === undefined ? 0 : this.sizes.inside;
    return this.sizes.head + this.sizes.jack * high + inside + 4;
  }

  private blocksIn(id: string): number | undefined {
    const isHost = kindOf(this.device(id).kind).hosts !== undefined;
    return isHost && id !== this.within ? blocksOf(this.rig, id).length : undefined;
  }

  /** Out beside its column; unless straight, along above the row that it goes to, and in beside its column. */
  private layRoute({ a, b, straight }: Route, route: number): void {
    entryAt(this.verticals, a.column + 1).push({
      route,
      end: 'out',
      span: straight
        ? [a.row, a.row]
        : [Math.min(a.row, b.row - 0.5), Math.max(a.row, b.row - 0.5)],
    });
    if (straight) return;
    entryAt(this.horizontals, b.row).push({
      route,
      span: [Math.min(a.column + 1, b.column), Math.max(a.column + 1, b.column)],
    });
    entryAt(this.verticals, b.column).push({ route, end: 'in', span: [b.row - 0.5, b.row] });
  }

  /** How high each row lies, and the band of each place. */
  private stackRows(): { rowY: number[]; bands: WiringGeometry['bands']; height: number } {
    const rowY: number[] = [];
    const bands: WiringGeometry['bands'] = [];
    let y = 8;
    this.rows.forEach((place, r) => {
      if (this.rows[r - 1] !== place) {
        y += this.sizes.band;
        bands.push({ place, y, height: 0 });
      }
      y += this.sizes.row + this.sizes.track * entryAt(this.hTracks, r).count;
      rowY.push(y);
      const here = [...this.cells].filter(([, c]) => c.row === r);
      y += Math.max(...here.map(([id]) => this.boxHeight(id)));
      sure(bands.at(-1)).height = y + 6 - sure(bands.at(-1)).y;
      y += 8;
    });
    return { rowY, bands, height: y + 8 };
  }

  private columnX(c: number): number {
    const channels = this.channel.slice(0, c + 1).reduce((sum, w) => sum + w, 0);
    return this.sizes.left + c * this.sizes.box + channels;
  }

  private box(id: string, cell: Cell, y: number): WiringBox {
    const x = this.columnX(cell.column);
    const below = this.stacked.get(id) ? this.jacksOf(id).in.length : 0;
    const jacks = (['in', 'out'] as const).flatMap((side) =>
      this.jacksOf(id)[side].map((jack, i): WiringJack => {
        const label = this.labelOf(id, jack);
        const text =
          label.length > this.sizes.letters ? `${label.slice(0, this.sizes.letters - 1)}…` : label;
        return {
          id: jack,
          label,
          text,
          side,
          ...(this.free.has(`${id}/${jack}`) && {
            free: true as const,
            ...(this.held.has(`${id}/${jack}`) && { held: true as const }),
          }),
          x: side === 'in' ? x : x + this.sizes.box,
          y:
            y +
            this.sizes.head +
            this.sizes.jack * (i + (side === 'out' ? below : 0)) +
            this.sizes.jack / 2,
        };
      }),
    );
    return {
      device: this.device(id),
      x,
      y,
      width: this.sizes.box,
      height: this.boxHeight(id),
      jacks,
      inside: this.blocksIn(id),
    };
  }

  private way(
    { lead, a, b, straight }: Route,
    i: number,
    rowY: readonly number[],
    jackAt: ReadonlyMap<string, WiringJack>,
  ): WiringWay {
    const from = sure(jackAt.get(`${lead.from.device}/${lead.from.jack}/out`));
    const to = sure(jackAt.get(`${lead.to.device}/${lead.to.jack}/in`));
    const x1 = this.uprightX(a.column + 1, i, 'out');
    if (straight)
      return {
        lead,
        d: `M${from.x} ${from.y}H${x1}V${to.y}H${to.x}`,
        tag: { x: x1, y: (from.y + to.y) / 2 },
      };
    const h = entryAt(rowY, b.row) - this.aboveRow(b.row, i);
    const x2 = this.uprightX(b.column, i, 'in');
    return {
      lead,
      d: `M${from.x} ${from.y}H${x1}V${h}H${x2}V${to.y}H${to.x}`,
      tag: { x: x2, y: (h + to.y) / 2 },
    };
  }

  private uprightX(c: number, route: number, end: Upright['end']): number {
    const at = entryAt(this.verticals, c).findIndex((v) => v.route === route && v.end === end);
    const { track, count } = entryAt(this.vTracks, c);
    const wide = entryAt(this.channel, c);
    return this.columnX(c) - wide + 5 + ((wide - 10) * (entryAt(track, at) + 1)) / (count + 1);
  }

  /** How far above its row a route runs along it. */
  private aboveRow(row: number, route: number): number {
    const at = entryAt(this.horizontals, row).findIndex((h) => h.route === route);
    return 6 + this.sizes.track * entryAt(entryAt(this.hTracks, row).track, at);
  }
}
