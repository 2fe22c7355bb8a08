import { LEAD_DASH, LEAD_TAGS, PLACE_NAMES, placeWiring, type WiringGeometry } from '../draw';
import { cornersOf, nameSpots } from '../draw/spots';
import { leadCodes, type XY } from '../build';
import type { Rig } from '../rig/schema';
import {
  type Connectors,
  connectorsOf,
  cutsOf,
  drawConnectors,
  EVERYTHING,
  isOn,
  type Room,
  type Window,
} from './pages';
import { type Element, FAINT, finish, INK, lines, RULE, sheet, TAPE, text } from './sheet';

const HEAD = 32;
/** The smallest letters of a wiring. */
export const WIRING_LEAST = 8;

/** The wiring by place as a drawing. */
export function wiringSvg(rig: Rig, width = 1180): string {
  const g = placeWiring(rig, width);
  const svg = sheet(g.width + 12, g.height + 40, `${rig.name}: wiring`);
  drawWiring(svg, rig, g, `${rig.name}: wiring`, EVERYTHING);
  return finish(svg);
}

/**
 * The same as wide as a page and on as many as it takes for its letters to be read, cut between rows
 * of boxes; a lead that goes on has its code at both edges.
 */
export function wiringPages(rig: Rig, room: Room): string[] {
  const g = wiringWithin(rig, room.width - 12);
  const rows = cutsOf(
    g.height,
    room.height - HEAD - NAMES_ROOM,
    g.boxes.map((b) => [b.y - 20, b.y + b.height + 4] as const),
  );
  return rows.map(([from, to], i) => {
    const title = `${rig.name}: wiring` + (rows.length > 1 ? `, ${i + 1} of ${rows.length}` : '');
    const page: Window = rows.length > 1 ? { x: [-Infinity, Infinity], y: [from, to] } : EVERYTHING;
    const names = namesAt(rig, g, page);
    const svg = sheet(g.width + 12, to - from + HEAD + 8 + names.over + names.under, title);
    drawWiring(svg, rig, g, title, page, names);
    return finish(svg);
  });
}

/** A wiring that is no wider than this: channels grow with what runs in them, so fewer boxes may fit a row. */
function wiringWithin(rig: Rig, width: number): WiringGeometry {
  let g = placeWiring(rig, width);
  for (let asked = width - 80; g.width > width && asked > width / 3; asked -= 80)
    g = placeWiring(rig, asked);
  return g;
}

/** What each lead is called where there is no room for more. */
function codesOf(rig: Rig): (way: WiringGeometry['ways'][number]) => string {
  const codes = leadCodes(rig);
  return ({ lead }) => lead.label ?? codes.get(lead.id)?.code ?? LEAD_TAGS[lead.type];
}

/** The codes of the leads that leave a page. */
function namesAt(rig: Rig, g: WiringGeometry, page: Window): Connectors {
  const codeOf = codesOf(rig);
  return page === EVERYTHING
    ? NO_NAMES
    : connectorsOf(
        g.ways.map((w) => ({ d: w.d, words: () => codeOf(w) })),
        page,
      );
}

const NO_NAMES: Connectors = { all: [], over: 0, under: 0 };

/** Room that is kept for the codes of leads that go on, over and under a page. */
const NAMES_ROOM = 90;

/** What of a wiring lies on a page. */
function drawWiring(
  svg: Element,
  rig: Rig,
  g: WiringGeometry,
  title: string,
  page: Window,
  names = NO_NAMES,
): void {
  const top = page === EVERYTHING ? 0 : page.y[0];
  text(svg, 12, 22, title, { 'font-size': 15, 'font-weight': 700 });
  const all = svg.ele('g', { transform: `translate(0 ${HEAD + names.over - top})` });
  for (const b of g.bands) {
    if (!isOn(page, { x: 8, y: b.y })) continue;
    all.ele('line', { x1: 8, x2: g.width, y1: b.y, y2: b.y, stroke: RULE });
    text(all, 8, b.y + 16, PLACE_NAMES[b.place], { 'font-weight': 700, 'font-size': 12 });
  }
  drawWays(all, g, page, codesOf(rig));
  drawConnectors(all, names);
  for (const b of g.boxes) {
    if (!isOn(page, b)) continue;
    all.ele('rect', {
      x: b.x,
      y: b.y,
      width: b.width,
      height: b.height,
      rx: 2,
      fill: TAPE,
      stroke: FAINT,
    });
    lines(b.device.name, 18).forEach((line, i) =>
      text(all, b.x + b.width / 2, b.y + 13 + 12 * i, line, {
        'text-anchor': 'middle',
        'font-weight': 700,
      }),
    );
    for (const j of b.jacks)
      text(all, j.side === 'in' ? j.x + 4 : j.x - 4, j.y + 3, j.text, {
        'font-size': 8.5,
        ...(j.side === 'out' ? { 'text-anchor': 'end' } : {}),
      });
  }
}

function drawWays(
  all: Element,
  g: WiringGeometry,
  page: Window,
  codeOf: (way: WiringGeometry['ways'][number]) => string,
): void {
  const id = page === EVERYTHING ? undefined : `wiring-from-${Math.round(page.y[0])}`;
  if (id !== undefined)
    all
      .ele('clipPath', { id })
      .ele('rect', { x: 0, y: page.y[0], width: g.width + 12, height: page.y[1] - page.y[0] });
  const ways = id === undefined ? all : all.ele('g', { 'clip-path': `url(#${id})` });
  for (const w of g.ways)
    ways.ele('path', {
      d: w.d,
      fill: 'none',
      stroke: INK,
      'stroke-width': 1.4,
      ...(LEAD_DASH[w.lead.type] ? { 'stroke-dasharray': LEAD_DASH[w.lead.type]! } : {}),
    });
  const inBox = (p: XY) =>
    g.boxes.some(
      (b) => p.x > b.x - 14 && p.x < b.x + b.width + 2 && p.y > b.y && p.y < b.y + b.height,
    );
  const spots = nameSpots(
    g.ways.map((w) => cornersOf(w.d)),
    { width: 22, height: 9 },
    inBox,
  );
  spots.forEach((p, k) => {
    const way = g.ways[k];
    if (way && isOn(page, p))
      text(all, p.x + 2, p.y - 1, codeOf(way), { 'font-size': WIRING_LEAST, fill: FAINT });
  });
}
