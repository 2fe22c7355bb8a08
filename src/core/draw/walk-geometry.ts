import { at as entryAt, sure } from '../outcome';
import type { Lead } from '../rig/schema';
import type { XY } from '../build';
import { byKey } from '../graph';
import { Cells, cornersOf, freeSpots } from './spots';
import type { WalkStation, WalkView } from './walk-view';

/** Sizes of the walk in pixels. */
export const SIZE = {
  gutter: 86,
  wide: 80,
  narrow: 26,
  gap: 30,
  label: 58,
  meter: 58,
  row: 17,
  laneGap: 26,
  top: 22,
};

/** `folded`: its lane shows no figures. */
export interface PlacedStation {
  station: WalkStation;
  x: number;
  y: number;
  width: number;
  narrow: boolean;
  folded: boolean;
}
/** A tag on a lead: where its middle stands, and how many leads run there side by side. */
export interface PlacedLead {
  lead: Lead;
  x: number;
  y: number;
  live: boolean;
  count: number;
}
/**
 * `flat` ways run along one lane; the others cross lanes and are drawn under them. A way lies between
 * `from` and `to`.
 */
export interface Way {
  key: string;
  d: string;
  from: XY;
  to: XY;
  live: boolean;
  type: Lead['type'];
  stereo: boolean;
  back: boolean;
  flat: boolean;
}
export interface WalkGeometry {
  stations: PlacedStation[];
  leads: PlacedLead[];
  ways: Way[];
  lanes: { y: number; height: number; key: string; folded: boolean }[];
  width: number;
  height: number;
}

const passesOn = (s: WalkStation): boolean => s.state === 'through' || s.state === 'unused';

/**
 * A way between two strips as a path, and where its tag stands: straight along a lane, over what
 * stands between or goes back, or down (or up) to another lane, early behind a strip that splits
 * and late before one that joins.
 */
function wayOf(way: {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  back: boolean;
  between: PlacedStation | undefined;
  isEarly: boolean;
}): [string, readonly [number, number]] {
  const { x1, y1, x2, y2, between } = way;
  const over = (y: number) => `M${x1} ${y1}h6V${y}H${x2 - 6}V${y2}h6`;
  if (way.back) return [over(Math.min(y1, y2) - SIZE.label / 2 - 5), [x2 - SIZE.gap / 2, y2]];
  if (y1 === y2 && between) {
    const y = y1 - SIZE.label / 2 - 10;
    return [over(y), [between.x + between.width / 2, y]];
  }
  if (y1 === y2) return [`M${x1} ${y1}H${x2}`, [x1 + (x2 - x1) / 2, y1]];
  return way.isEarly
    ? [`M${x1} ${y1}h7V${y2}H${x2}`, [x2 - SIZE.gap / 2, y2]]
    : [`M${x1} ${y1}H${x2 - 7}V${y2}h7`, [x1 + SIZE.gap / 2, y1]];
}

/** How far apart the middles of two tags are at least, across or down: one lies over no part of another. */
const TAG = { width: 22, height: 24 };

/** What of a tag is read, from its middle: it may reach to the edge of a strip, as one over a lane does. */
const READ = { x: TAG.width / 2, y: 10 };

/** Whether a tag that stands there lies over a strip. */
const isOver = (p: XY, s: PlacedStation): boolean =>
  p.x > s.x - READ.x &&
  p.x < s.x + s.width + READ.x &&
  p.y > s.y - READ.y &&
  p.y < s.y + SIZE.label + READ.y;

/**
 * Where the tag of a way may stand: where it does usually; where that is taken, between the columns that
 * the way crosses or beside its way down, the nearest first, and before all others where no other way runs;
 * in the end over the usual place, one above the other.
 */
function* tagSpots(
  { first, corners }: { first: XY; corners: readonly XY[] },
  gaps: readonly number[],
  runs: Cells<Run>,
): Generator<XY> {
  yield first;
  const beside = (x: number) =>
    gaps.reduce((a, b) => (Math.abs(b - x) < Math.abs(a - x) ? b : a), first.x);
  const more = corners.slice(1).flatMap((to, i): XY[] => {
    const from = entryAt(corners, i);
    if (from.y === to.y) {
      const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
      return gaps.filter((x) => left < x && x < right).map((x) => ({ x, y: to.y }));
    }
    const steps = Math.floor(Math.abs(to.y - from.y) / (TAG.height + 1));
    const step = Math.sign(from.y - to.y) * (TAG.height + 1);
    return Array.from({ length: steps }, (_, n) => ({ x: beside(to.x), y: to.y + step * (n + 1) }));
  });
  const away = (p: XY) => Math.abs(p.x - first.x) + Math.abs(p.y - first.y);
  more.sort((a, b) => away(a) - away(b));
  const isAlone = (p: XY) =>
    runs.at(p.x).every((run) => run.corners === corners || !passes(run, p));
  yield* more.filter(isAlone);
  yield* more;
  for (let n = 1; n < 8; n++) yield { x: first.x, y: first.y - n * (TAG.height + 1) };
}

function boxOf(corners: readonly XY[]): { from: XY; to: XY } {
  const [xs, ys] = [corners.map((c) => c.x), corners.map((c) => c.y)];
  return {
    from: { x: Math.min(...xs), y: Math.min(...ys) },
    to: { x: Math.max(...xs), y: Math.max(...ys) },
  };
}

/** One straight piece of a way. */
interface Run {
  from: XY;
  to: XY;
  corners: readonly XY[];
}

function runsOf(ways: readonly (readonly XY[])[]): Cells<Run> {
  const cells = new Cells<Run>();
  for (const corners of ways)
    corners.slice(1).forEach((to, i) => {
      const from = entryAt(corners, i);
      const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
      cells.add(left - TAG.width / 2, right + TAG.width / 2, { from, to, corners });
    });
  return cells;
}

/** Whether a piece of a way runs through where a tag stands. */
function passes({ from, to }: Run, p: XY): boolean {
  const near = (axis: 'x' | 'y', by: number) =>
    p[axis] > Math.min(from[axis], to[axis]) - by / 2 &&
    p[axis] < Math.max(from[axis], to[axis]) + by / 2;
  return near('x', TAG.width) && near('y', TAG.height);
}

/** The lanes from the top, and where they end. */
function lanesOf(view: WalkView, rows: number, foldedLanes: ReadonlySet<string>) {
  const lanes: WalkGeometry['lanes'] = [];
  let top = SIZE.top;
  for (let i = 0; i < Math.max(1, view.lanes); i++) {
    const key = view.stations.find((s) => s.lane === i)?.id ?? '';
    const folded = foldedLanes.has(key);
    const height = folded ? SIZE.label + 6 : SIZE.label + SIZE.meter + rows * SIZE.row + 10;
    lanes.push({ y: top, height, key, folded });
    top += height + SIZE.laneGap;
  }
  return lanes;
}

/**
 * Places a walk: stations in columns by when the signal meets them, parallel routes in lanes, the
 * meter rows of each lane under it unless the lane is folded. A column is narrow where `isSmall`
 * says so of everything in it; usually where it only passes the signal on. A lane is known by its
 * first station.
 */
export function placeWalk(
  view: WalkView,
  leads: readonly Lead[],
  rows: number,
  isSmall: (s: WalkStation) => boolean = passesOn,
  foldedLanes: ReadonlySet<string> = new Set(),
): WalkGeometry {
  const lanes = lanesOf(view, rows, foldedLanes);
  const columnWidth = Array.from({ length: view.columns }, () => SIZE.narrow);
  for (const s of view.stations) if (!isSmall(s)) columnWidth[s.column] = SIZE.wide;
  const columnX: number[] = [];
  let edge = SIZE.gutter;
  for (const width of columnWidth) {
    columnX.push(edge);
    edge += width + SIZE.gap;
  }
  const stations = view.stations.map((station) => {
    const narrow = isSmall(station) && columnWidth[station.column] === SIZE.narrow;
    const { folded } = entryAt(lanes, station.lane);
    return {
      folded,
      station,
      x: entryAt(columnX, station.column),
      y: entryAt(lanes, station.lane).y,
      width: entryAt(columnWidth, station.column),
      narrow,
    };
  });
  const at = new Map(stations.map((s) => [s.station.id, s]));
  const byId = new Map(leads.map((l) => [l.id, l]));
  const inLane = byKey(stations, (s) => s.y);
  const outOf = byKey(view.steps, (s) => s.from);
  const ways: Way[] = [];
  const tagged: (Omit<PlacedLead, 'x' | 'y'> & { first: XY; corners: XY[] })[] = [];
  for (const step of view.steps) {
    const from = at.get(step.from);
    const to = at.get(step.to);
    const lead = byId.get(step.leads[0] ?? '');
    if (!from || !to || (step.leads.length > 0 && !lead)) continue;
    const live =
      !step.open && from.station.output.levelDbu !== null && from.station.state !== 'muted';
    const [x1, y1, x2, y2] = [
      from.x + from.width,
      from.y + SIZE.label / 2,
      to.x,
      to.y + SIZE.label / 2,
    ];
    const splits =
      y1 !== y2 && sure(outOf.get(step.from)).some((s) => s !== step && at.get(s.to)?.y === y1);
    // A way to the next strip, as most are, has nothing between.
    const between =
      to.station.column > from.station.column + 1
        ? sure(inLane.get(from.y)).find((s) => s.x > x1 && s.x < x2)
        : undefined;
    const [d, tag] = wayOf({
      x1,
      y1,
      x2,
      y2,
      between,
      back: step.back,
      isEarly: splits || from.station.lane < to.station.lane,
    });
    const corners = cornersOf(d);
    ways.push({
      key: `${step.from}>${step.to}`,
      d,
      ...boxOf(corners),
      live,
      type: lead?.type ?? 'inside',
      stereo: step.leads.length > 1,
      back: step.back,
      flat: y1 === y2,
    });
    if (lead)
      tagged.push({
        lead,
        live,
        count: step.leads.length,
        first: { x: tag[0], y: tag[1] },
        corners,
      });
  }
  const gaps = columnX.slice(1).map((left) => left - SIZE.gap / 2);
  const strips = new Cells<PlacedStation>();
  for (const s of stations) strips.add(s.x - READ.x, s.x + s.width + READ.x, s);
  const runs = runsOf(tagged.map((t) => t.corners));
  const spots = freeSpots(
    tagged.map((t) => tagSpots(t, gaps, runs)),
    TAG,
    (p) => strips.at(p.x).some((s) => isOver(p, s)),
  );
  return {
    stations,
    leads: tagged.map(({ lead, live, count }, i) => {
      const { x, y } = entryAt(spots, i);
      return { lead, x, y, live, count };
    }),
    ways,
    lanes,
    width: edge + 10,
    height: sure(lanes.at(-1)).y + sure(lanes.at(-1)).height,
  };
}
