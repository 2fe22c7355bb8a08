import { sure } from '../../outcome';
import type { Rig } from '../../rig/schema';
import { type Element, INK, sheet, text } from '../sheet';
import { cases } from './cases';
import { flags } from './flags';
import type { Label } from './label';
import { panels } from './panels';
import { strips } from './strips';

export const LABEL_KINDS = ['flags', 'strips', 'panels', 'cases'] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

/** Paper in mm. */
export const PAPERS = {
  A4: { width: 210, height: 297 },
  Letter: { width: 215.9, height: 279.4 },
} as const;
export type Paper = keyof typeof PAPERS;

/** Room that printers leave white at the edges, in mm. */
export const MARGIN_MM = 13;
const GAP_MM = 2;

const LABELS: Record<LabelKind, (rig: Rig, most: number, link: string) => Label[]> = {
  flags: (rig) => flags(rig),
  strips: (rig, most) => strips(rig, most),
  panels: (rig, most) => panels(rig, most),
  cases: (rig, _, link) => cases(rig, link),
};

/** A sheet of labels, to be printed at 100 %: a drawing in mm for the area inside the margins. */
export interface LabelSheet {
  svg: string;
  width: number;
  height: number;
  labels: number;
}

/**
 * Labels at true size on as many sheets as they take, with a bar of 100 mm to check the printer by.
 * `link` is what the code on a case opens. Labels wider than the paper are turned upright.
 */
export function labelSheets(rig: Rig, kind: LabelKind, paper: Paper, link: string): LabelSheet[] {
  const [width, height] = [
    PAPERS[paper].width - 2 * MARGIN_MM,
    PAPERS[paper].height - 2 * MARGIN_MM - 12,
  ];
  const list = LABELS[kind](rig, width, link);
  if (!list.length) return [];
  const placed = list.map((l) =>
    l.width <= width
      ? { l, w: l.width, h: l.height, turn: false }
      : { l, w: l.height, h: l.width, turn: true },
  );
  const sheets: { svg: Element; labels: number }[] = [];
  let [x, y, row] = [0, Infinity, 0];
  for (const { l, w, h, turn } of placed) {
    if (x + w > width + 0.01) [x, y, row] = [0, y + row + GAP_MM, 0];
    if (!sheets.length || y + h > height + 0.01) {
      const svg = sheet(width, height + 12, `${rig.name}: labels`, { width, height: height + 12 });
      svg.ele('path', {
        d: `M0 ${height + 8}h100M0 ${height + 6.5}v3M100 ${height + 6.5}v3`,
        stroke: INK,
        fill: 'none',
        'stroke-width': 0.2,
      });
      text(svg, 102, height + 9, '100 mm: if it is not, print again at 100 %', {
        'font-size': 2.8,
      });
      sheets.push({ svg, labels: 0 });
      [x, y, row] = [0, 0, 0];
    }
    const s = sure(sheets.at(-1));
    const g = s.svg.ele('g', {
      transform: turn ? `translate(${x + w} ${y}) rotate(90)` : `translate(${x} ${y})`,
      'data-label': `${l.width} ${l.height}`,
    });
    l.draw(g);
    s.labels++;
    x += w + GAP_MM;
    row = Math.max(row, h);
  }
  return sheets.map((s) => ({
    svg: `${s.svg.end({ pretty: false })}\n`,
    width,
    height: height + 12,
    labels: s.labels,
  }));
}
