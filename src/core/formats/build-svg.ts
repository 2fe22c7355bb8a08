import { at as entryAt } from '../outcome';
import {
  boardModel,
  HITS,
  judge,
  type Model,
  mountedIn,
  PANEL_MM,
  type Path,
  placesNow,
  sizeOf,
  spotsOf,
  UNIT_MM,
  type XY,
} from '../build';
import { LEAD_DASH } from '../draw';
import type { Board, Lead, Rack, Rig } from '../rig/schema';
import { type Element, FAINT, finish, INK, lines, RULE, sheet, TAPE, text, WRONG } from './sheet';

/** How a drawing is looked at: which thing is chosen, which clash; nothing of it when it is printed. */
export interface Looked {
  selected?: string | null;
  at?: readonly XY[];
  leads?: boolean;
}

const EDGE = 50;

/** A bar of 100 mm, so that a scale that a printer changed is seen. */
function scaleBar(svg: Element, x: number, y: number, length = 100, words = '100 mm'): void {
  svg.ele('path', {
    d: `M${x} ${y}h${length}M${x} ${y - 4}v8M${x + length} ${y - 4}v8`,
    stroke: INK,
    fill: 'none',
    'stroke-width': 1,
  });
  text(svg, x + length + 6, y + 4, words, { 'font-size': 11, fill: FAINT });
}

/** Names in a body: as many letters as it is wide. */
function label(
  at: Element,
  words: string,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  const size = Math.min(13, Math.max(8, width / 7));
  const rows = lines(words, Math.max(5, Math.floor(width / (size * 0.6))));
  rows.forEach((row, i) =>
    text(
      at,
      x + width / 2,
      y + height / 2 + size * (i - (rows.length - 1) / 2) * 1.1 + size * 0.35,
      row,
      { 'text-anchor': 'middle', 'font-size': Math.round(size * 10) / 10, 'font-weight': 700 },
    ),
  );
}

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
  drawDeck(all, board);
  const [below, under, bodies] = [all.ele('g'), all.ele('g'), all.ele('g')];
  model.items.forEach((item, i) => {
    const looks = { isHit: hit.has(i), isChosen: look.selected === item.device.id };
    drawItem(item.under ? below : bodies, item, entryAt(at, i), looks);
  });
  if (look.leads ?? true) {
    let over: Element | undefined;
    judged.paths.forEach((path, k) =>
      drawWay(path.below ? under : (over ??= all.ele('g')), path, entryAt(model.runs, k).lead, k),
    );
  }
  text(svg, w / 2, h - 24, 'player', { 'text-anchor': 'middle', 'font-size': 12, fill: FAINT });
  scaleBar(svg, EDGE, h - 28);
  text(svg, w - EDGE, h - 24, `${board.name}, ${board.width} by ${board.depth} mm`, {
    'text-anchor': 'end',
    'font-size': 12,
    fill: FAINT,
  });
  return finish(svg);
}

/** The deck with its raised strips and its rails. */
function drawDeck(all: Element, board: Board): void {
  const across = { x: 0, width: board.width };
  all.ele('rect', {
    ...across,
    y: 0,
    height: board.depth,
    rx: 4,
    fill: '#f7f6f1',
    stroke: INK,
    'stroke-width': 1.5,
  });
  for (const r of board.raised ?? []) {
    all.ele('rect', { ...across, y: r.y, height: r.depth, fill: '#efede4', stroke: RULE });
    text(all, board.width - 4, r.y + 12, `raised ${r.by} mm`, {
      'font-size': 10,
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

/** One device: its plugs, its body, its name, and what is to be known of it. */
function drawItem(
  layer: Element,
  item: Model['items'][number],
  p: XY,
  looks: { isHit: boolean; isChosen: boolean },
): void {
  const g = layer.ele('g', { 'data-item': item.device.id });
  for (const s of item.sockets) drawPlug(g, p, s);
  drawBody(g, item, p, looks);
  label(g, item.device.name, p.x, p.y, item.width, item.depth - (item.under ? -20 : 14));
  if (item.under)
    text(g, p.x + item.width / 2, p.y + item.depth - 6, 'under the deck', {
      'text-anchor': 'middle',
      'font-size': 9,
      fill: FAINT,
    });
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

/**
 * A rack from the front and from the rear, to scale in mm, unit by unit; what hangs on the other
 * rails is dashed.
 */
export function rackSvg(rig: Rig, rack: Rack, look: Looked = {}): string {
  const list = mountedIn(rig, rack);
  const high = rack.units * UNIT_MM;
  const [gap, top, side] = [90, 40, 44];
  const svg = sheet(2 * PANEL_MM + gap + 2 * side, high + top + 44, `${rig.name}: ${rack.name}`);
  for (const [n, face] of (['front', 'rear'] as const).entries()) {
    const x0 = side + n * (PANEL_MM + gap);
    const g = svg.ele('g', { transform: `translate(${x0} ${top})` });
    text(g, 0, -14, `${rack.name}, ${face}`, { 'font-size': 14, 'font-weight': 700 });
    g.ele('rect', {
      x: 0,
      y: 0,
      width: PANEL_MM,
      height: high,
      fill: '#f7f6f1',
      stroke: INK,
      'stroke-width': 2,
    });
    for (let u = 1; u <= rack.units; u++) {
      const y = high - u * UNIT_MM;
      g.ele('line', { x1: 0, x2: PANEL_MM, y1: y, y2: y, stroke: RULE, 'stroke-width': 0.6 });
      text(g, -8, y + UNIT_MM / 2 + 4, String(u), {
        'text-anchor': 'end',
        'font-size': 11,
        fill: FAINT,
      });
    }
    const inset = (PANEL_MM - 450) / 2;
    for (const m of [...list].sort(
      (a, b) => Number(a.rear === (face === 'rear')) - Number(b.rear === (face === 'rear')),
    )) {
      const here = m.rear === (face === 'rear');
      const wide = m.shelf ? m.width : PANEL_MM;
      const left = m.shelf ? inset + m.x : 0;
      const x = face === 'rear' ? PANEL_MM - left - wide : left;
      const y = high - m.to * UNIT_MM;
      const tall = (m.to - m.from + 1) * UNIT_MM;
      const body =
        here ||
        !list.some(
          (o) =>
            o !== m &&
            o.rear === (face === 'rear') &&
            o.from <= m.to &&
            m.from <= o.to &&
            o.x < m.x + m.width &&
            m.x < o.x + o.width,
        );
      if (!body) continue;
      const item = g.ele('g', { 'data-item': m.device.id });
      item.ele('rect', {
        x: x + 1,
        y: y + 1,
        width: wide - 2,
        height: tall - 2,
        rx: 2,
        fill: here ? TAPE : '#ffffff',
        stroke: look.selected === m.device.id ? INK : FAINT,
        'stroke-width': look.selected === m.device.id ? 4 : 1.2,
        ...(here ? {} : { 'stroke-dasharray': '5 4' }),
      });
      const spots = spotsOf(m.device).filter((s) => s.edge === 'rear' && face === 'rear');
      label(item, m.device.name, x, y, wide, spots.length ? tall - 12 : tall);
      for (const s of spots)
        item.ele('circle', {
          cx: x + wide - s.mm * (wide / Math.max(m.width, 1)),
          cy: y + tall - 9,
          r: 3.4,
          fill: '#ffffff',
          stroke: INK,
          'stroke-width': 1,
        });
    }
  }
  scaleBar(svg, side, high + top + 24);
  return finish(svg);
}

/**
 * The stage from above, the audience at the foot of the sheet: where everything of the crew stands,
 * to scale.
 */
export function stageSvg(rig: Rig, look: Looked = {}): string {
  const stage = rig.stage;
  if (!stage) return finish(sheet(10, 10, `${rig.name}: stage`));
  const scale = 100;
  const [w, h] = [stage.width * scale + 80, stage.depth * scale + 110];
  const svg = sheet(w, h, `${rig.name}: stage`);
  text(svg, 40, 24, `${rig.name}: stage plot, ${stage.width} by ${stage.depth} m`, {
    'font-size': 18,
    'font-weight': 700,
  });
  const all = svg.ele('g', { transform: 'translate(40 40)' });
  all.ele('rect', {
    x: 0,
    y: 0,
    width: stage.width * scale,
    height: stage.depth * scale,
    fill: '#f7f6f1',
    stroke: INK,
    'stroke-width': 2,
  });
  for (let m = 1; m < stage.width; m++)
    all.ele('line', {
      x1: m * scale,
      x2: m * scale,
      y1: 0,
      y2: stage.depth * scale,
      stroke: RULE,
      'stroke-width': 0.5,
      'stroke-dasharray': '2 6',
    });
  for (let m = 1; m < stage.depth; m++)
    all.ele('line', {
      y1: m * scale,
      y2: m * scale,
      x1: 0,
      x2: stage.width * scale,
      stroke: RULE,
      'stroke-width': 0.5,
      'stroke-dasharray': '2 6',
    });
  for (const spot of stage.spots) {
    const board = rig.boards?.find((b) => b.id === spot.id);
    const rack = rig.racks?.find((r) => r.id === spot.id);
    const device = rig.devices.find((d) => d.id === spot.id);
    const name = board?.name ?? rack?.name ?? device?.name;
    if (name === undefined) continue;
    const real = board
      ? { width: board.width, depth: board.depth }
      : rack
        ? { width: 540, depth: rack.depth }
        : (device && sizeOf(device)) || { width: 400, depth: 300 };
    const [bw, bd] = [Math.max(58, real.width / 10), Math.max(34, real.depth / 10)];
    const g = all.ele('g', {
      'data-item': spot.id,
      transform: `translate(${spot.x * scale} ${spot.y * scale})`,
    });
    g.ele('rect', {
      x: -bw / 2,
      y: -bd / 2,
      width: bw,
      height: bd,
      rx: 3,
      fill: TAPE,
      stroke: look.selected === spot.id ? INK : FAINT,
      'stroke-width': look.selected === spot.id ? 4 : 1.4,
    });
    lines(name, 14).forEach((row, i, rows) =>
      text(g, 0, bd / 2 + 15 + 14 * i - (bd > 46 && rows.length === 1 ? bd / 2 + 11 : 0), row, {
        'text-anchor': 'middle',
        'font-size': 13,
        'font-weight': 700,
      }),
    );
  }
  for (const mark of stage.marks) {
    const g = all.ele('g', {
      'data-item': mark.id,
      transform: `translate(${mark.x * scale} ${mark.y * scale})`,
    });
    g.ele('circle', {
      cx: 0,
      cy: 0,
      r: 9,
      fill: '#ffffff',
      stroke: look.selected === mark.id ? INK : FAINT,
      'stroke-width': look.selected === mark.id ? 4 : 1.6,
      'stroke-dasharray': '3 2',
    });
    text(g, 0, 24, mark.words, { 'text-anchor': 'middle', 'font-size': 13 });
  }
  text(svg, w / 2, h - 22, 'audience', { 'text-anchor': 'middle', 'font-size': 14, fill: FAINT });
  scaleBar(svg, 40, h - 26, scale, '1 m');
  return finish(svg);
}
