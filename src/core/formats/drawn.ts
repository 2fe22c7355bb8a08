import { type XY } from '../build';
import { type Element, FAINT, INK, lines, text } from './sheet';

/** How a drawing is looked at: which thing is chosen, which clash; nothing of it when it is printed. */
export interface Looked {
  selected?: string | null;
  at?: readonly XY[];
  leads?: boolean;
  /** How much larger letters are than usual, so that they can be read where the drawing is printed small. */
  letters?: number;
  /** The codes of leads, by the ids of the leads, where they are to be drawn. */
  codes?: ReadonlyMap<string, string>;
  /** Which sides of a rack; both where it is left out. */
  faces?: readonly ('front' | 'rear')[];
}

/** How much larger letters have to be for a drawing of a size to be read on a page that holds `room`. */
export const lettersFor = (
  drawn: { width: number; height: number },
  room: { width: number; height: number },
): number => Math.max(1, drawn.width / room.width, drawn.height / room.height);

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
  letters = 1,
): void {
  const size = Math.min(13, Math.max(8, width / 7)) * letters;
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
