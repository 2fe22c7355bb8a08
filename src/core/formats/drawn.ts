import { type XY } from '../build';
import { type Element, FAINT, INK, lines, text } from './sheet';

/** How a drawing is looked at: which thing is chosen, which clash; nothing of it when it is printed. */
export interface Looked {
  selected?: string | null;
  at?: readonly XY[];
  leads?: boolean;
}

/** A bar of 100 mm, so that a scale that a printer changed is seen. */
export function scaleBar(svg: Element, x: number, y: number, length = 100, words = '100 mm'): void {
  svg.ele('path', {
    d: `M${x} ${y}h${length}M${x} ${y - 4}v8M${x + length} ${y - 4}v8`,
    stroke: INK,
    fill: 'none',
    'stroke-width': 1,
  });
  text(svg, x + length + 6, y + 4, words, { 'font-size': 11, fill: FAINT });
}

/** Names in a body: as many letters as it is wide. */
export function label(
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
