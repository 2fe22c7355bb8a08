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
  const whole = { svg: drawing.svg, ...scaleOf(drawing.svg) };
  const { pages } = drawing;
  if (whole.scale >= least || !pages) return [whole];
  // What goes on beside, over and under a page is named there, and takes room that shows only when it is drawn.
  for (let share = 1; ; share *= 0.9) {
    const room = { width: (share * area.width) / least, height: (share * area.height) / least };
    const cut = pages(room).map((svg) => ({ svg, ...scaleOf(svg) }));
    // Pages of one drawing are drawn alike, whatever is on them.
    if (share < LEAST_SHARE || cut.every((p) => p.scale >= least))
      return cut.map((p) => ({ ...p, scale: Math.min(p.scale, 1.2 * least) }));
  }
}

/** A page that is cut to less than this of its room is not cut on: something on it is larger than a page. */
const LEAST_SHARE = 0.4;

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
