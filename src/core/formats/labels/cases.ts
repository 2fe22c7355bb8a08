import QRCode from 'qrcode';
import { packingOf, TWO_PERSONS_GRAMS } from '../../build';
import type { Rig } from '../../rig/schema';
import { type Element, text } from '../sheet';
import { box, type Label, LEAST_MM, lettersIn, line } from './label';

const WIDTH = 90;
const HEIGHT = 62;
/** Names of what is in a case, one a line; more are counted. */
const MOST_NAMES = 9;

/** Whether an address opens on the machine itself only. */
export function isOnlyHere(link: string): boolean {
  if (!URL.canParse(link)) return true;
  const { hostname } = new URL(link);
  return /^(localhost|127\..*|0\.0\.0\.0|\[::1?\])$/.test(hostname);
}

/**
 * What is on each case: its name, number, weight, what is in it, and a code that opens the rig. An
 * address that opens on this machine only gets no code: a phone would find nothing there. 90 by 62 mm.
 */
export function cases(rig: Rig, link: string): Label[] {
  const { pieces } = packingOf(rig);
  return pieces.map((p): Label => ({
    width: WIDTH,
    height: HEIGHT,
    draw: (at) => {
      box(at, WIDTH, HEIGHT);
      line(at, 4, 9, p.name, 54, 6, { 'font-weight': 700 });
      text(at, WIDTH - 4, 9, `${p.order} of ${pieces.length}`, {
        'font-size': 5,
        'font-weight': 700,
        'text-anchor': 'end',
      });
      line(at, 4, 15.5, rig.name, 54, 3.4);
      text(
        at,
        4,
        22,
        `${(p.grams / 1000).toFixed(1)} ` +
          `kg${p.unweighed ? ' and more' : ''}${p.grams > TWO_PERSONS_GRAMS ? ', two persons lift' : ''}`,
        { 'font-size': 4.4, 'font-weight': 700 },
      );
      const names = p.devices.map((d) => d.name);
      names.slice(0, MOST_NAMES).forEach((n, i) => line(at, 4, 28 + 3.7 * i, n, 46, 3));
      if (names.length > MOST_NAMES)
        text(at, 4, 28 + 3.7 * MOST_NAMES - 0.6, `and ${names.length - MOST_NAMES} more`, {
          'font-size': 2.8,
        });
      if (isOnlyHere(link)) noCode(at);
      else codeOf(at, link);
    },
  }));
}

const CODE_MM = 34;
const CODE_LEFT = 52;
const CODE_TOP = 19;

/** The code with its quiet zone of four cells, and the address under it, in as many lines as it takes. */
function codeOf(at: Element, link: string): void {
  const code = QRCode.create(link, { errorCorrectionLevel: 'M' }).modules;
  const cell = CODE_MM / (code.size + 8);
  let d = '';
  for (let y = 0; y < code.size; y++)
    for (let x = 0; x < code.size; x++)
      if (code.get(y, x))
        d +=
          `M${(CODE_LEFT + (x + 4) * cell).toFixed(3)} ${(CODE_TOP + (y + 4) * cell).toFixed(3)}` +
          `h${cell.toFixed(3)}v${cell.toFixed(3)}h-${cell.toFixed(3)}z`;
  at.ele('path', { d, fill: '#000000' });
  const most = lettersIn(CODE_MM + 2, LEAST_MM);
  const lines = link.match(new RegExp(`.{1,${most}}`, 'gu')) ?? [];
  lines.slice(0, 3).forEach((words, i) =>
    text(at, CODE_LEFT + CODE_MM / 2, 54.5 + 2.5 * i, words, {
      'font-size': LEAST_MM,
      'text-anchor': 'middle',
    }),
  );
}

/** Why there is no code. */
function noCode(at: Element): void {
  [
    'No code: this address opens on',
    'one computer only. Say at which',
    'address others reach it, and',
    'print again.',
  ].forEach((words, i) => text(at, CODE_LEFT, 30 + 3.4 * i, words, { 'font-size': 2.4 }));
}
