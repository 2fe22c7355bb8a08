import { sure, at as entryAt } from '../outcome';
import QRCode from 'qrcode';
import { cutList, panelPlan, packingOf, spotsOf, TWO_PERSONS_GRAMS } from '../build';
import { kindOf } from '../kinds';
import { endWords, jackOf, nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { pagesFor } from '../songs/controller-choice';
import { type Element, INK, sheet, text } from './sheet';

export const LABEL_KINDS = ['flags', 'strips', 'panels', 'cases'] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

/** One label at its true size, in mm, and what draws it. */
interface Label {
  width: number;
  height: number;
  draw: (at: Element) => void;
}

/** Paper in mm. */
export const PAPERS = {
  A4: { width: 210, height: 297 },
  Letter: { width: 215.9, height: 279.4 },
} as const;
export type Paper = keyof typeof PAPERS;

/** Room that printers leave white at the edges, in mm. */
export const MARGIN_MM = 13;
const GAP_MM = 2;

/** Letters of a size that fit into a width, both in mm; a letter is about half as wide as it is high. */
const fit = (words: string, width: number, size: number): string => {
  const most = Math.max(3, Math.floor(width / (size * 0.54)));
  return words.length > most ? `${words.slice(0, most - 1)}…` : words;
};

function box(at: Element, width: number, height: number, dashed = false): void {
  at.ele('rect', {
    x: 0,
    y: 0,
    width,
    height,
    fill: '#ffffff',
    stroke: INK,
    'stroke-width': 0.2,
    ...(dashed ? { 'stroke-dasharray': '1 1' } : {}),
  });
}

/**
 * A flag for each end of each lead, folded round it in the middle: the same words on both halves.
 * 40 mm a half, 10 mm high.
 */
function flags(rig: Rig): Label[] {
  const half = 40;
  return cutList(rig).cuts.flatMap((c) =>
    (
      [
        ['from', 'to'],
        ['to', 'from'],
      ] as const
    ).map(([here, there]): Label => ({
      width: 2 * half,
      height: 10,
      draw: (at) => {
        box(at, 2 * half, 10);
        at.ele('line', {
          x1: half,
          x2: half,
          y1: 0,
          y2: 10,
          stroke: INK,
          'stroke-width': 0.2,
          'stroke-dasharray': '1 1',
        });
        for (const x of [1.5, half + 1.5]) {
          text(
            at,
            x,
            4.2,
            fit(`${c.lead.label ?? c.code}  ${endWords(rig, c.lead[here])}`, half - 3, 3),
            { 'font-size': 3, 'font-weight': 700 },
          );
          text(
            at,
            x,
            8.2,
            fit(
              `${here === 'from' ? 'to' : 'from'} ${endWords(rig, c.lead[there])}`,
              half - 3,
              2.6,
            ),
            { 'font-size': 2.6 },
          );
        }
      },
    })),
  );
}

const pieces = <T>(list: readonly T[], most: number): T[][] =>
  Array.from({ length: Math.ceil(list.length / most) }, (_, i) =>
    list.slice(i * most, (i + 1) * most),
  );

/**
 * A strip of pads for each controller, a cell for each of its switches as far apart as they are, in
 * pieces where it is longer than the sheet; and a name for each box on a board.
 */
function strips(rig: Rig, most: number): Label[] {
  return rig.devices
    .filter((d) => d.host === undefined)
    .flatMap((d): Label[] => {
      const kind = kindOf(d.kind);
      const width = d.size?.width ?? kind.size?.width;
      const switches = kind.switches ?? 0;
      if (width === undefined) return [];
      if (switches > 1) {
        const cell = width / switches;
        const inPiece = Math.max(1, Math.floor(most / cell));
        return pagesFor(rig, '', switches, Math.max(4, Math.floor((cell / 5) * 2))).flatMap(
          (page) =>
            pieces(
              Array.from({ length: switches }, (_, k) => page[k]?.label ?? ''),
              inPiece,
            ).map((piece): Label => ({
              width: cell * piece.length,
              height: 12,
              draw: (at) => {
                box(at, cell * piece.length, 12);
                piece.forEach((words, k) => {
                  if (k)
                    at.ele('line', {
                      x1: k * cell,
                      x2: k * cell,
                      y1: 0,
                      y2: 12,
                      stroke: INK,
                      'stroke-width': 0.2,
                    });
                  text(at, (k + 0.5) * cell, 7.6, fit(words, cell - 2, 4.4), {
                    'font-size': 4.4,
                    'font-weight': 700,
                    'text-anchor': 'middle',
                  });
                });
              },
            })),
        );
      }
      if (!d.at) return [];
      const wide = Math.min(width, 120);
      return [
        {
          width: wide,
          height: 10,
          draw: (at) => {
            box(at, wide, 10);
            text(at, wide / 2, 6.8, fit(d.name, wide - 3, 5), {
              'font-size': 5,
              'font-weight': 700,
              'text-anchor': 'middle',
            });
          },
        },
      ];
    });
}

/**
 * A strip under each row of panel sockets: a cell at each socket, where the sockets are. Longer
 * than the sheet, it comes in pieces.
 */
function panels(rig: Rig, most: number): Label[] {
  const plan = panelPlan(rig);
  return [...new Set(plan.map((l) => l.panel))].flatMap((panel): Label[] => {
    const rows = plan
      .filter((l) => l.panel === panel)
      .map((l) => {
        const lead = rig.leads.find((x) => x.id === l.outsideLead);
        const far = lead && (lead.from.device === panel.id ? lead.to : lead.from);
        return {
          mm: sure(spotsOf(panel).find((s) => s.jack.id === l.outside)).mm,
          line: jackOf(panel, l.outside)?.label.replace(', outside', '') ?? l.outside,
          goes: far ? nameOf(rig, far.device) : 'spare',
        };
      })
      .sort((a, b) => a.mm - b.mm);
    const pitch = Math.min(...rows.slice(1).map((r, i) => r.mm - entryAt(rows, i).mm), 70);
    const inPiece = Math.max(1, Math.floor(most / pitch));
    return pieces(rows, inPiece).map((piece): Label => ({
      width: pitch * piece.length,
      height: 10,
      draw: (at) => {
        box(at, pitch * piece.length, 10);
        piece.forEach((r, i) => {
          if (i)
            at.ele('line', {
              x1: i * pitch,
              x2: i * pitch,
              y1: 0,
              y2: 10,
              stroke: INK,
              'stroke-width': 0.2,
            });
          text(at, (i + 0.5) * pitch, 4.4, fit(r.goes, pitch - 2, 3.6), {
            'font-size': 3.6,
            'font-weight': 700,
            'text-anchor': 'middle',
          });
          text(at, (i + 0.5) * pitch, 8.4, r.line, { 'font-size': 2.8, 'text-anchor': 'middle' });
        });
      },
    }));
  });
}

/**
 * What is on each case: its name, number, weight, what is in it, and a code that opens the rig. 90
 * by 62 mm.
 */
function cases(rig: Rig, link: string): Label[] {
  const { pieces } = packingOf(rig);
  const code = QRCode.create(link, { errorCorrectionLevel: 'M' }).modules;
  return pieces.map((p): Label => ({
    width: 90,
    height: 62,
    draw: (at) => {
      box(at, 90, 62);
      text(at, 4, 9, fit(p.name, 54, 6), { 'font-size': 6, 'font-weight': 700 });
      text(at, 86, 9, `${p.order} of ${pieces.length}`, {
        'font-size': 5,
        'font-weight': 700,
        'text-anchor': 'end',
      });
      text(at, 4, 15.5, fit(rig.name, 54, 3.4), { 'font-size': 3.4 });
      text(
        at,
        4,
        22,
        `${(p.grams / 1000).toFixed(1)} ` +
          `kg${p.unweighed ? ' and more' : ''}${p.grams > TWO_PERSONS_GRAMS ? ', two persons lift' : ''}`,
        { 'font-size': 4.4, 'font-weight': 700 },
      );
      const names = p.devices.map((d) => d.name);
      const shown = names.slice(0, 9);
      shown.forEach((n, i) => text(at, 4, 28 + 3.7 * i, fit(n, 46, 3), { 'font-size': 3 }));
      if (names.length > 9)
        text(at, 4, 28 + 3.7 * 9 - 0.6, `and ${names.length - 9} more`, { 'font-size': 2.8 });
      const cell = 34 / (code.size + 8);
      const left = 52;
      let d = '';
      for (let y = 0; y < code.size; y++)
        for (let x = 0; x < code.size; x++)
          if (code.get(y, x))
            d +=
              `M${(left + (x + 4) * cell).toFixed(3)} ${(19 + (y + 4) * cell).toFixed(3)}` +
              `h${cell.toFixed(3)}v${cell.toFixed(3)}h-${cell.toFixed(3)}z`;
      at.ele('path', { d, fill: '#000000' });
      text(at, left + 17, 57, fit(link, 36, 2), { 'font-size': 2, 'text-anchor': 'middle' });
    },
  }));
}

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
  const list =
    kind === 'flags'
      ? flags(rig)
      : kind === 'strips'
        ? strips(rig, width)
        : kind === 'panels'
          ? panels(rig, width)
          : cases(rig, link);
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
    svg: `${s.svg.end({ prettyPrint: false })}\n`,
    width,
    height: height + 12,
    labels: s.labels,
  }));
}
