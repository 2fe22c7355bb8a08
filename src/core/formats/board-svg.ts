import { at as entryAt } from '../outcome';
import { boardModel, HITS, judge, type Model, type Path, placesNow, type XY } from '../build';
import { LEAD_DASH } from '../draw';
import { nameSpots } from '../draw/spots';
import type { Board, Lead, Rig } from '../rig/schema';
import { type Element, FAINT, finish, INK, RULE, sheet, TAPE, text, WRONG } from './sheet';
import { type Looked, scaleBar, label } from './drawn';

const EDGE = 50;
const DECK = '#f7f6f1';
/** The smallest letters of a board, a rack or a stage. */
export const PLACES_LEAST = 8;

/**
 * A board from above, in mm, the player at the foot of the sheet: outline, rails, raised strips,
 * bodies with their names, plugs in their jacks, leads along their ways. What hits something is
 * outlined twice and named in a list below by the caller.
 */
export function boardSvg(
  rig: Rig,
  board: Board,
  look: Looked = {},
  model: Model = boardModel(rig, board, new Map()),
): string {
  const at = look.at ?? placesNow(model);
  const judged = judge(model, at);
  const hit = new Set(
    judged.clashes
      .filter((c) => HITS.has(c.what) || c.what === 'half')
      .flatMap((c) => (c.b >= 0 && c.what !== 'plug' ? [c.a, c.b] : [c.a])),
  );
  const [w, h] = [board.width + 2 * EDGE, board.depth + 2 * EDGE + 26];
  const svg = sheet(w, h, `${rig.name}: ${board.name}`);
  const all = svg.ele('g', { transform: `translate(${EDGE} ${EDGE})` });
  const letters = look.letters ?? 1;
  drawDeck(all, board, letters);
  const [below, under, names, bodies] = [all.ele('g'), all.ele('g'), all.ele('g'), all.ele('g')];
  model.items.forEach((item, i) => {
    const looks = {
      isHit: hit.has(i),
      isChosen: look.selected === item.device.id,
      letters,
    };
    drawItem(item.under ? below : bodies, item, entryAt(at, i), looks);
    if (item.under)
      nameUnder(names, item, entryAt(at, i).x, seenAt(model, at, i, letters), letters);
  });
  if (look.leads ?? true) {
    let over: Element | undefined;
    judged.paths.forEach((path, k) =>
      drawWay(path.below ? under : (over ??= all.ele('g')), path, entryAt(model.runs, k).lead, k),
    );
    if (look.codes) drawCodes(all, model, at, judged.paths, look);
  }
  text(svg, w / 2, h - 24, 'player', {
    'text-anchor': 'middle',
    'font-size': 12 * letters,
    fill: FAINT,
  });
  scaleBar(svg, EDGE, h - 28);
  text(svg, w - EDGE, h - 24, `${board.name}, ${board.width} by ${board.depth} mm`, {
    'text-anchor': 'end',
    'font-size': 12 * letters,
    fill: FAINT,
  });
  return finish(svg);
}

/** The deck with its raised strips and its rails. */
function drawDeck(all: Element, board: Board, letters: number): void {
  const across = { x: 0, width: board.width };
  all.ele('rect', {
    ...across,
    y: 0,
    height: board.depth,
    rx: 4,
    fill: DECK,
    stroke: INK,
    'stroke-width': 1.5,
  });
  for (const r of board.raised ?? []) {
    all.ele('rect', { ...across, y: r.y, height: r.depth, fill: '#efede4', stroke: RULE });
    text(all, board.width - 4, r.y + 12, `raised ${r.by} mm`, {
      'font-size': 10 * letters,
      fill: FAINT,
      'text-anchor': 'end',
    });
  }
  for (const r of board.rails)
    all.ele('rect', {
      ...across,
      y: r.y,
      height: r.depth,
      fill: 'none',
      stroke: RULE,
      'stroke-dasharray': '2 3',
    });
}

/** Where the name of what lies under the deck can be seen: between the bodies over it, if anywhere. */
function seenAt(model: Model, at: readonly XY[], i: number, letters: number): number {
  const [item, p] = [entryAt(model.items, i), entryAt(at, i)];
  const [up, down] = [12 * letters, 14 * letters];
  const isHidden = (y: number) =>
    model.items.some((o, j) => {
      const q = entryAt(at, j);
      return (
        !o.under &&
        q.x < p.x + item.width &&
        q.x + o.width > p.x &&
        q.y < y + down &&
        q.y + o.depth > y - up
      );
    });
  const last = p.y + item.depth - down;
  for (let y = p.y + up; y <= last; y += 5) if (!isHidden(y)) return y;
  return p.y + item.depth / 2;
}

/** The name of what lies under the deck, on a patch of the deck so that no lead crosses it. */
function nameUnder(
  layer: Element,
  item: Model['items'][number],
  left: number,
  y: number,
  letters: number,
): void {
  const { name } = item.device;
  const size = Math.min(12, Math.max(8, (item.width / name.length) * 1.7)) * letters;
  const small = 9 * letters;
  const wide = Math.min(item.width, Math.max(name.length * size, 14 * small) * 0.56 + 6);
  const x = left + item.width / 2;
  const patch = { x: x - wide / 2, y: y - size, width: wide, height: size + small + 4 * letters };
  layer.ele('rect', { ...patch, fill: DECK });
  const middle = { 'text-anchor': 'middle' };
  text(layer, x, y, name, { ...middle, 'font-size': size, 'font-weight': 700 });
  text(layer, x, y + 11 * letters, 'under the deck', {
    ...middle,
    'font-size': small,
    fill: FAINT,
  });
}

/** One device: its plugs, its body, its name, and what is to be known of it. */
function drawItem(
  layer: Element,
  item: Model['items'][number],
  p: XY,
  looks: { isHit: boolean; isChosen: boolean; letters: number },
): void {
  const g = layer.ele('g', { 'data-item': item.device.id });
  for (const s of item.sockets) drawPlug(g, p, s);
  drawBody(g, item, p, looks);
  if (!item.under) label(g, item.device.name, p.x, p.y, item.width, item.depth - 14, looks.letters);
  if (item.pinned)
    g.ele('path', {
      d: `M${p.x + item.width - 12} ${p.y + 5}h7v7h-7zM${p.x + item.width - 8.5} ${p.y + 12}v6`,
      stroke: INK,
      fill: INK,
      'stroke-width': 1.2,
    });
  if (item.pressed)
    for (const s of item.switches)
      g.ele('circle', {
        cx: p.x + s.x,
        cy: p.y + s.y + 8,
        r: 6,
        fill: '#ffffff',
        stroke: INK,
        'stroke-width': 1.4,
      });
}

function drawPlug(g: Element, p: XY, s: Model['items'][number]['sockets'][number]): void {
  const [x, y] = [p.x + s.x, p.y + s.y];
  const [tx, ty] = [x + s.nx * s.clearance, y + s.ny * s.clearance];
  g.ele('rect', {
    x: Math.min(x, tx) - (s.nx ? 0 : 8),
    y: Math.min(y, ty) - (s.ny ? 0 : 8),
    width: Math.abs(tx - x) || 16,
    height: Math.abs(ty - y) || 16,
    fill: '#ffffff',
    stroke: FAINT,
    'stroke-width': 0.8,
  });
}

/** A body; what hits something is outlined twice. */
function drawBody(
  g: Element,
  item: Model['items'][number],
  p: XY,
  { isHit, isChosen }: { isHit: boolean; isChosen: boolean },
): void {
  g.ele('rect', {
    x: p.x,
    y: p.y,
    width: item.width,
    height: item.depth,
    rx: 2,
    fill: item.under ? 'none' : TAPE,
    stroke: isHit ? WRONG : isChosen ? INK : FAINT,
    'stroke-width': isChosen ? 4 : isHit ? 2.5 : 1.2,
    ...(item.under ? { 'stroke-dasharray': '6 4' } : {}),
  });
  if (isHit)
    g.ele('rect', {
      x: p.x + 4,
      y: p.y + 4,
      width: Math.max(0, item.width - 8),
      height: Math.max(0, item.depth - 8),
      fill: 'none',
      stroke: WRONG,
      'stroke-width': 1,
    });
}

/** The code of each lead on its way, clear of bodies and of one another where there is room. */
function drawCodes(
  all: Element,
  model: Model,
  at: readonly XY[],
  paths: readonly Path[],
  { codes, letters = 1 }: Looked,
): void {
  const size = 9 * letters;
  const inBody = (p: XY) =>
    model.items.some((item, i) => {
      const q = entryAt(at, i);
      const [x, y] = [p.x - q.x, p.y - q.y];
      return (
        !item.under &&
        x > -size &&
        y > -size / 2 &&
        x < item.width + size &&
        y < item.depth + size / 2
      );
    });
  const spots = nameSpots(
    paths.map((p) => p.points),
    { width: 3 * size, height: 1.3 * size },
    inBody,
  );
  spots.forEach((p, k) => {
    const code = codes?.get(entryAt(model.runs, k).lead.id);
    if (code === undefined) return;
    const wide = code.length * size * 0.62 + 4;
    all.ele('rect', {
      x: p.x - wide / 2,
      y: p.y - size * 0.65,
      width: wide,
      height: size * 1.3,
      rx: 2,
      fill: '#ffffff',
      stroke: INK,
      'stroke-width': 0.6,
    });
    text(all, p.x, p.y + size * 0.35, code, { 'font-size': size, 'text-anchor': 'middle' });
  });
}

/** The way of the `k`th lead. */
function drawWay(layer: Element, path: Path, lead: Lead, k: number): void {
  // Leads in one channel lie side by side.
  const off = ((k % 5) - 2) * 3;
  const tenth = (x: number) => Math.round(x * 10) / 10;
  const isBelow = (n: number) => path.below && n > 1 && n < path.points.length - 2;
  const dash = LEAD_DASH[lead.type] ?? (path.below ? '1 0' : undefined);
  layer.ele('path', {
    d: path.points
      .map((p, n) => `${n ? 'L' : 'M'}${tenth(p.x)} ${tenth(p.y + (isBelow(n) ? off : 0))}`)
      .join(''),
    fill: 'none',
    stroke: INK,
    'stroke-width': path.below ? 1.2 : 2,
    opacity: path.below ? 0.55 : 1,
    'stroke-linejoin': 'round',
    ...(dash === undefined ? {} : { 'stroke-dasharray': dash }),
    'data-way': lead.id,
  });
}
