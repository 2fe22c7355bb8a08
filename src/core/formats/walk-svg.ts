import { at } from '../outcome';
import type { SoundReport } from '../report/report';
import {
  LEAD_DASH,
  LEAD_TAGS,
  placeWalk,
  SIZE,
  type WalkGeometry,
  walkView,
  type WalkChoice,
} from '../draw';
import { nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { fixed } from '../units';
import {
  connectorName,
  connectorsOf,
  cutsOf,
  drawConnectors,
  EVERYTHING,
  isOn,
  NAMES_BESIDE,
  type Room,
  type Stretch,
  type Window,
} from './pages';
import { type Element, FAINT, finish, lines, LIVE, RULE, sheet, TAPE, text } from './sheet';

const ROWS = [
  ['Level', 'dBu'],
  ['Saturation', '%'],
  ['Noise', 'dBu'],
] as const;
const HEAD = 34;
/** The smallest letters of a walk. */
export const WALK_LEAST = 9;

/** A walk as it is drawn: its strips placed, and its title. */
interface Walk {
  rig: Rig;
  g: WalkGeometry;
  title: string;
}

function walkOf(rig: Rig, report: SoundReport, choice: WalkChoice): Walk {
  const g = placeWalk(walkView(rig, report, choice), rig.leads, ROWS.length);
  const name = rig.sounds.find((s) => s.id === report.sound)?.name ?? report.sound;
  return { rig, g, title: `${rig.name}: ${name}` };
}

/**
 * The walk of one sound as a drawing: strips in the order of the signal, with level, saturation and
 * noise under each.
 */
export function walkSvg(rig: Rig, report: SoundReport, choice: WalkChoice = {}): string {
  const walk = walkOf(rig, report, choice);
  const { g, title } = walk;
  const svg = sheet(g.width + 12, g.height + HEAD - SIZE.meter + 20, title);
  drawWalk(svg, walk, title, EVERYTHING);
  return finish(svg);
}

/**
 * The same on as many pages as it takes for its letters to be read: cut between strips and between
 * lanes, with a name where a way goes on.
 */
export function walkPages(rig: Rig, report: SoundReport, room: Room): string[] {
  const walk = walkOf(rig, report, {});
  const { g } = walk;
  const high = g.height - SIZE.meter + 8;
  const columns = cutsOf(
    g.width - SIZE.gutter,
    room.width - SIZE.gutter - NAMES_BESIDE,
    g.stations.map((p): Stretch => [p.x - 12 - SIZE.gutter, p.x + p.width + 12 - SIZE.gutter]),
  );
  const rows = cutsOf(
    high,
    room.height - HEAD - 40,
    g.lanes.map((l): Stretch => [l.y - SIZE.laneGap / 2, l.y + l.height]),
  );
  const hasStation = (page: Window) =>
    g.stations.some((p) => isOn(page, { x: p.x, y: p.y, width: p.width, height: SIZE.label }));
  const pages = rows
    .flatMap((y) => columns.map(([a, b]): Window => ({ x: [a + SIZE.gutter, b + SIZE.gutter], y })))
    .filter(hasStation);
  if (pages.length === 1) return [walkSvg(rig, report)];
  return pages.map((page, i) => {
    const title = `${walk.title}, ${i + 1} of ${pages.length}`;
    const [wide, tall] = [page.x[1] - page.x[0], page.y[1] - page.y[0]];
    const svg = sheet(wide + SIZE.gutter + NAMES_BESIDE, tall + HEAD + 30, title);
    drawWalk(svg, walk, title, page);
    return finish(svg);
  });
}

/** What of a walk lies on a page. */
function drawWalk(svg: Element, { rig, g, title }: Walk, words: string, page: Window): void {
  const [left, top] = page === EVERYTHING ? [SIZE.gutter, 0] : [page.x[0], page.y[0]];
  text(svg, 12, 22, words, { 'font-size': 15, 'font-weight': 700 });
  const all = svg.ele('g', { transform: `translate(0 ${HEAD - 8 - top})` });
  const moved = all.ele('g', { transform: `translate(${SIZE.gutter - left} 0)` });
  drawWays(moved, g, title, page);
  for (const p of g.stations)
    if (isOn(page, { x: p.x, y: p.y, width: p.width, height: SIZE.label }))
      drawStation(moved, nameOf(rig, p.station.device), p);
  for (const lane of g.lanes)
    if (isOn(page, { x: left, y: lane.y, height: SIZE.label }))
      ROWS.forEach(([label, unit], i) =>
        text(all, 8, lane.y + SIZE.label + 16 + 15 * i, `${label}, ${unit}`, {
          'font-size': 10,
          fill: FAINT,
        }),
      );
  for (const l of g.leads)
    if (isOn(page, l))
      text(moved, l.x, l.y - 4, `${LEAD_TAGS[l.lead.type]}${l.count > 1 ? ` ×${l.count}` : ''}`, {
        'text-anchor': 'middle',
        'font-size': WALK_LEAST,
        fill: FAINT,
      });
}

/** The ways, cut off at the edges of the page, where each has its name. */
function drawWays(moved: Element, g: WalkGeometry, title: string, page: Window): void {
  const cut = page === EVERYTHING ? undefined : `cut ${title} ${page.x[0]} ${page.y[0]}`;
  const id = cut?.replace(/[^\w]+/g, '-');
  if (id !== undefined)
    moved.ele('clipPath', { id }).ele('rect', {
      x: page.x[0],
      y: page.y[0] - 30,
      width: page.x[1] - page.x[0],
      height: page.y[1] - page.y[0] + 30,
    });
  const ways = id === undefined ? moved : moved.ele('g', { 'clip-path': `url(#${id})` });
  for (const w of g.ways)
    ways.ele('path', {
      d: w.d,
      fill: 'none',
      stroke: w.live ? LIVE : RULE,
      'stroke-width': w.live ? 2.5 : 1.5,
      ...(LEAD_DASH[w.type] ? { 'stroke-dasharray': LEAD_DASH[w.type]! } : {}),
    });
  if (id === undefined) return;
  const named = g.ways.map(({ d }, n) => ({
    d,
    words: (leaves: boolean) => `${leaves ? 'to' : 'from'} ${connectorName(n)}`,
  }));
  drawConnectors(moved, connectorsOf(named, page));
}

function drawStation(all: Element, words: string, p: WalkGeometry['stations'][number]): void {
  const off = p.station.state === 'through' || p.station.state === 'unused';
  all.ele('rect', {
    x: p.x,
    y: p.y,
    width: p.width,
    height: SIZE.label,
    rx: 2,
    fill: off ? '#ffffff' : TAPE,
    stroke: off ? RULE : FAINT,
    ...(off ? { 'stroke-dasharray': '3 2' } : {}),
  });
  if (p.narrow) {
    text(all, 0, 0, at(lines(words, 10), 0), {
      transform: `translate(${p.x + p.width / 2 + 4} ${p.y + SIZE.label - 4}) rotate(-90)`,
      'font-size': 10,
      fill: FAINT,
    });
    return;
  }
  lines(words, 13).forEach((line, i) =>
    text(all, p.x + p.width / 2, p.y + 24 + 13 * i, line, {
      'text-anchor': 'middle',
      'font-weight': 600,
    }),
  );
  const { output } = p.station;
  const values = [
    output.levelDbu ? fixed(output.levelDbu.normal) : 'silent',
    output.thdPercent ? fixed(output.thdPercent.normal) : '–',
    output.noiseDbu === null ? '–' : fixed(output.noiseDbu),
  ];
  values.forEach((v, i) =>
    text(all, p.x + p.width / 2, p.y + SIZE.label + 16 + 15 * i, v, { 'text-anchor': 'middle' }),
  );
}
