import { sizeOf } from '../build';
import type { Rig, Stage } from '../rig/schema';
import { type Element, FAINT, finish, INK, lines, RULE, sheet, TAPE, text } from './sheet';
import { type Looked, scaleBar } from './drawn';

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
  drawFloor(all, stage, scale);
  for (const spot of stage.spots) drawSpot(all, rig, spot, scale, look.selected === spot.id);
  for (const mark of stage.marks) drawMark(all, mark, scale, look.selected === mark.id);
  text(svg, w / 2, h - 22, 'audience', { 'text-anchor': 'middle', 'font-size': 14, fill: FAINT });
  scaleBar(svg, 40, h - 26, scale, '1 m');
  return finish(svg);
}

/** The floor with a line at every metre. */
function drawFloor(all: Element, stage: Stage, scale: number): void {
  all.ele('rect', {
    x: 0,
    y: 0,
    width: stage.width * scale,
    height: stage.depth * scale,
    fill: '#f7f6f1',
    stroke: INK,
    'stroke-width': 2,
  });
  const line = (ends: { x1: number; x2: number; y1: number; y2: number }) =>
    all.ele('line', { ...ends, stroke: RULE, 'stroke-width': 0.5, 'stroke-dasharray': '2 6' });
  const [width, depth] = [stage.width * scale, stage.depth * scale];
  for (let x = scale; x < width; x += scale) line({ x1: x, x2: x, y1: 0, y2: depth });
  for (let y = scale; y < depth; y += scale) line({ x1: 0, x2: width, y1: y, y2: y });
}

/** A board, a rack or a device where it stands, to scale but never too small to be read. */
function drawSpot(
  all: Element,
  rig: Rig,
  spot: Stage['spots'][number],
  scale: number,
  isChosen: boolean,
): void {
  const board = rig.boards?.find((b) => b.id === spot.id);
  const rack = rig.racks?.find((r) => r.id === spot.id);
  const device = rig.devices.find((d) => d.id === spot.id);
  const name = board?.name ?? rack?.name ?? device?.name;
  if (name === undefined) return;
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
    stroke: isChosen ? INK : FAINT,
    'stroke-width': isChosen ? 4 : 1.4,
  });
  lines(name, 14).forEach((row, i, rows) =>
    text(g, 0, bd / 2 + 15 + 14 * i - (bd > 46 && rows.length === 1 ? bd / 2 + 11 : 0), row, {
      'text-anchor': 'middle',
      'font-size': 13,
      'font-weight': 700,
    }),
  );
}

/** A mark in words. */
function drawMark(
  all: Element,
  mark: Stage['marks'][number],
  scale: number,
  isChosen: boolean,
): void {
  const g = all.ele('g', {
    'data-item': mark.id,
    transform: `translate(${mark.x * scale} ${mark.y * scale})`,
  });
  g.ele('circle', {
    cx: 0,
    cy: 0,
    r: 9,
    fill: '#ffffff',
    stroke: isChosen ? INK : FAINT,
    'stroke-width': isChosen ? 4 : 1.6,
    'stroke-dasharray': '3 2',
  });
  text(g, 0, 24, mark.words, { 'text-anchor': 'middle', 'font-size': 13 });
}
