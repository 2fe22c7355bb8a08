import type { Room } from '../pages';

/** What a page of the book is made of, whatever prints it. */
export type Block =
  | { is: 'words'; words: string }
  | { is: 'heading'; words: string }
  | { is: 'list'; items: string[]; ordered?: boolean; boxes?: boolean }
  | { is: 'table'; head: string[]; rows: string[][]; bold?: number }
  | Drawing;

/**
 * A drawing, and how it is laid over several pages where on one its smallest letters, `least` in its own
 * units, could not be read.
 */
export interface Drawing {
  is: 'drawing';
  svg: string;
  least: number;
  pages?: (room: Room) => string[];
}

/** Letters under this many points are not printed. */
export const LEAST_POINTS = 6;

/** A drawing as pages of a size in points, each with the points that a unit of it takes. */
export function drawnOn(
  drawing: Drawing,
  area: { width: number; height: number },
): { svg: string; scale: number; width: number }[] {
  const least = LEAST_POINTS / drawing.least;
  const scaleOf = (svg: string) => {
    const [, width = 0, height = 0] = (/viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg) ?? []).map(
      Number,
    );
    return { width, scale: Math.min(area.width / width, area.height / height) };
  };
  const whole = scaleOf(drawing.svg);
  const cut = whole.scale < least && drawing.pages;
  const pages = cut
    ? cut({ width: area.width / least, height: area.height / least })
    : [drawing.svg];
  return pages.map((svg) => {
    const { width, scale } = scaleOf(svg);
    // Pages of one drawing are drawn alike, whatever is on them.
    return { svg, width, scale: cut ? Math.min(scale, 1.2 * least) : scale };
  });
}

export const table = (
  head: string[],
  rows: (string | number | null | undefined)[][],
  bold?: number,
): Block => ({
  is: 'table',
  head,
  rows: rows.map((r) => r.map((c) => (c === null || c === undefined ? '' : String(c)))),
  ...(bold !== undefined && { bold }),
});
export const words = (text: string): Block => ({ is: 'words', words: text });
export const heading = (text: string): Block => ({ is: 'heading', words: text });
