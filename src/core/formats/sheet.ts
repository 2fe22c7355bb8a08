import { sure } from '../outcome';
import { cutText } from '../rig/text';
import { create, type XMLElement } from 'xmlbuilder';

/** Colours of the printed sheet: ink on paper, and the one hue for signal that passes. */
export const INK = '#1b1a17';
export const FAINT = '#5d5a50';
export const RULE = '#b9b5a4';
export const TAPE = '#ebe5cf';
export const LIVE = '#0b7a4b';
export const WRONG = '#b3121d';
const FONT =
  'Atkinson Hyperlegible Next Variable, Atkinson Hyperlegible Next, Helvetica, Arial, sans-serif';

export type Element = XMLElement;

/** An empty drawing on white, in its own units; with `mm` it prints at that true size. */
export function sheet(
  width: number,
  height: number,
  title: string,
  mm?: { width: number; height: number },
): Element {
  const size = mm
    ? { width: `${mm.width}mm`, height: `${mm.height}mm`, viewBox: `0 0 ${width} ${height}` }
    : {
        width: Math.ceil(width),
        height: Math.ceil(height),
        viewBox: `0 0 ${Math.ceil(width)} ${Math.ceil(height)}`,
      };
  const svg = create('svg', {
    version: '1.0',
    encoding: 'UTF-8',
    // Characters that XML cannot hold in any way are left out.
    invalidCharReplacement: '',
  }).att({ xmlns: 'http://www.w3.org/2000/svg', ...size, 'font-family': FONT });
  svg.ele('title').txt(title);
  svg.ele('rect', { x: 0, y: 0, width, height, fill: '#ffffff' });
  return svg;
}

export const text = (
  at: Element,
  x: number,
  y: number,
  words: string,
  more: Record<string, string | number> = {},
) => at.ele('text', { x, y, 'font-size': 11, fill: INK, ...more }).txt(words);

/** Words cut to lines of at most `most` characters, two lines at the most. */
export function lines(words: string, most: number): string[] {
  const out: string[] = [''];
  for (const word of words.split(/\s+/)) {
    const last = sure(out.at(-1));
    if (!last) out[out.length - 1] = word;
    else if (last.length + 1 + word.length <= most) out[out.length - 1] = `${last} ${word}`;
    else out.push(word);
  }
  const two = out.slice(0, 2);
  return two.map((l, i) =>
    l.length > most || (i === 1 && out.length > 2) ? `${cutText(l, most - 1)}…` : l,
  );
}

export const finish = (svg: Element): string => `${svg.end({ pretty: true })}\n`;
