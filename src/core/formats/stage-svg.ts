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
  const letters = look.letters ?? 1;
  const [w, h] = [stage.width * scale + 80, stage.depth * scale + 110];
  const svg = sheet(w, h, `${rig.name}: stage`);
  text(svg, 40, 24, `${rig.name}: stage plot, ${stage.width} by ${stage.depth} m`, {
    'font-size': 18 * letters,
    'font-weight': 700,
  });
  const all = svg.ele('g', { transform: 'translate(40 40)' });
  drawFloor(all, stage, scale);
  for (const box of standApart(boxesOf(rig, stage, scale, letters)))
    drawBox(all, box, scale, look.selected === box.spot.id, letters);
  for (const mark of stage.marks) drawMark(all, mark, scale, look.selected === mark.id, letters);
  text(svg, w / 2, h - 22, 'audience', {
    'text-anchor': 'middle',
    'font-size': 14 * letters,
    fill: FAINT,
  });
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

/** A board, a rack or a device of the plot: its box, its name, and how much room both take. */
interface Box {
  spot: Stage['spots'][number];
  rows: string[];
  /** The middle of the box in drawing units, and its size. */
  x: number;
  y: number;
  width: number;
  depth: number;
  /** Whether its name stands in it; else under it. */
  named: boolean;
  letters: number;
}

/** Everything that stands on the stage, to scale but never too small to be read. */
function boxesOf(rig: Rig, stage: Stage, scale: number, letters: number): Box[] {
  return stage.spots.flatMap((spot): Box[] => {
    const board = rig.boards?.find((b) => b.id === spot.id);
    const rack = rig.racks?.find((r) => r.id === spot.id);
    const device = rig.devices.find((d) => d.id === spot.id);
    const name = board?.name ?? rack?.name ?? device?.name;
    if (name === undefined) return [];
    const real = board
      ? { width: board.width, depth: board.depth }
      : rack
        ? { width: 540, depth: rack.depth }
        : (device && sizeOf(device)) || { width: 400, depth: 300 };
    const rows = lines(name, 14);
    const depth = Math.max(34, real.depth / 10);
    return [
      {
        spot,
        rows,
        letters,
        depth,
        x: spot.x * scale,
        y: spot.y * scale,
        width: Math.max(58, real.width / 10),
        named: depth > 46 && rows.length === 1,
      },
    ];
  });
}

/** What a box and its name take, about the middle of the box. */
function roomOf(b: Box): { width: number; up: number; down: number } {
  const longest = Math.max(...b.rows.map((r) => r.length));
  const name = b.named ? 0 : b.letters * 15 * b.rows.length + 4;
  return {
    width: Math.max(b.width, longest * 7.4 * b.letters) + 4,
    up: b.depth / 2 + 2,
    down: b.depth / 2 + 2 + name,
  };
}

/** Rounds of pushing apart; a few are enough for a stage. */
const ROUNDS = 400;

/** Boxes pushed apart until none hides another or its name; each keeps the spot that it is for. */
function standApart(boxes: readonly Box[]): Box[] {
  const out = boxes.map((b) => ({ ...b }));
  for (let round = 0; round < ROUNDS; round++) {
    let isFree = true;
    for (const [i, a] of out.entries())
      for (const b of out.slice(i + 1)) {
        const [p, q] = [roomOf(a), roomOf(b)];
        const x = (p.width + q.width) / 2 - Math.abs(a.x - b.x);
        const y = a.y <= b.y ? p.down + q.up - (b.y - a.y) : q.down + p.up - (a.y - b.y);
        if (x <= 0.01 || y <= 0.01) continue;
        isFree = false;
        if (x < y) {
          const by = (a.x <= b.x ? x : -x) / 2;
          a.x -= by;
          b.x += by;
        } else {
          const by = (a.y <= b.y ? y : -y) / 2;
          a.y -= by;
          b.y += by;
        }
      }
    if (isFree) break;
  }
  return out;
}

/** A box where it is drawn, with a line to where it stands if that is elsewhere. */
function drawBox(all: Element, b: Box, scale: number, isChosen: boolean, letters: number): void {
  const [x, y] = [b.spot.x * scale, b.spot.y * scale];
  if (Math.hypot(x - b.x, y - b.y) > 6) {
    all.ele('line', { x1: x, y1: y, x2: b.x, y2: b.y, stroke: FAINT, 'stroke-width': 1 });
    all.ele('circle', { cx: x, cy: y, r: 3, fill: FAINT });
  }
  const g = all.ele('g', {
    'data-item': b.spot.id,
    transform: `translate(${Math.round(b.x * 10) / 10} ${Math.round(b.y * 10) / 10})`,
  });
  g.ele('rect', {
    x: -b.width / 2,
    y: -b.depth / 2,
    width: b.width,
    height: b.depth,
    rx: 3,
    fill: TAPE,
    stroke: isChosen ? INK : FAINT,
    'stroke-width': isChosen ? 4 : 1.4,
  });
  b.rows.forEach((row, i) =>
    text(g, 0, b.named ? 4 * letters : b.depth / 2 + letters * (14 + 14 * i), row, {
      'text-anchor': 'middle',
      'font-size': 13 * letters,
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
  letters: number,
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
  text(g, 0, 11 + 13 * letters, mark.words, { 'text-anchor': 'middle', 'font-size': 13 * letters });
}
