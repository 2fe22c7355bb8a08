import { fitLabel, widthOf } from '../../songs/labels';
import { type Element, INK, text } from '../sheet';

/** One label at its true size, in mm, and what draws it. */
export interface Label {
  width: number;
  height: number;
  draw: (at: Element) => void;
}

/** Bold words around a middle. */
export const MIDDLE = { 'font-weight': 700, 'text-anchor': 'middle' };

/** The smallest letters that are read by torchlight, in mm: 6 points. */
export const LEAST_MM = 2.12;
/** A letter is about so wide for its height; a bold one a little more. */
const WIDE = 0.54;

/** How wide words are at a size, in mm. */
export const wideAs = (words: string, size: number): number => widthOf(words) * size * WIDE;

/** How many letters of a size fit into a width, both in mm. */
export const lettersIn = (width: number, size: number): number =>
  Math.max(1, Math.floor(width / (size * WIDE) + 1e-9));

/** The largest size, from one given down to the least, at which words fit into a width, in mm. */
export const sizeFor = (words: string, width: number, size: number): number =>
  Math.max(LEAST_MM, Math.min(size, width / (Math.max(1, widthOf(words)) * WIDE)));

/** Words in one line, in letters that shrink to the least; what does not fit even so is shortened. */
export function line(
  at: Element,
  x: number,
  y: number,
  words: string,
  width: number,
  size: number,
  more: Record<string, string | number> = {},
): void {
  const small = sizeFor(words, width, size);
  const fitted = wideAs(words, small) > width ? fitLabel(words, lettersIn(width, small)) : words;
  text(at, x, y, fitted, { ...more, 'font-size': Number(small.toFixed(2)) });
}

export function box(at: Element, width: number, height: number): void {
  at.ele('rect', {
    x: 0,
    y: 0,
    width,
    height,
    fill: '#ffffff',
    stroke: INK,
    'stroke-width': 0.2,
  });
}

/** A line across a label from top to bottom. */
export function rule(at: Element, x: number, height: number, dashed = false): void {
  at.ele('line', {
    x1: x,
    x2: x,
    y1: 0,
    y2: height,
    stroke: INK,
    'stroke-width': 0.2,
    ...(dashed && { 'stroke-dasharray': '1 1' }),
  });
}

/** A list in pieces of at most so many. */
const pieces = <T>(list: readonly T[], most: number): T[][] =>
  Array.from({ length: Math.ceil(list.length / most) }, (_, i) =>
    list.slice(i * most, (i + 1) * most),
  );

/** Cells beside one another that are as wide as each other, in pieces where they are longer than the sheet. */
export function cells<T>(
  list: readonly T[],
  { width, height, most }: { width: number; height: number; most: number },
  draw: (at: Element, one: T, middle: number) => void,
): Label[] {
  return pieces(list, Math.max(1, Math.floor(most / width))).map((piece) => ({
    width: width * piece.length,
    height,
    draw: (at) => {
      box(at, width * piece.length, height);
      piece.forEach((one, i) => {
        if (i) rule(at, i * width, height);
        draw(at, one, (i + 0.5) * width);
      });
    },
  }));
}
