import { cutList } from '../../build';
import { deviceOf, jackOf } from '../../rig/find';
import type { End, Rig } from '../../rig/schema';
import { fitLabel, widthOf } from '../../songs/labels';
import { text } from '../sheet';
import { box, type Label, LEAST_MM, lettersIn, rule, sizeFor, wideAs } from './label';

/** Half a flag and its height, in mm; it is folded round the lead in the middle. */
const HALF = 40;
const HEIGHT = 10;
const PADDING = 1.5;
const WIDTH = HALF - 2 * PADDING;
const CODE_MM = 3;
/** What somebody wrote on a lead is the code's place on the flag, in so many letters. */
const CODE_LETTERS = 16;

/**
 * A flag for each end of each lead, folded round it in the middle: the same words on both halves. It
 * tells the code, the jack that this end goes into, and the far end.
 */
export const flags = (rig: Rig): Label[] =>
  cutList(rig).cuts.flatMap(({ lead, code }) =>
    [
      { here: lead.from, there: lead.to, way: 'to' },
      { here: lead.to, there: lead.from, way: 'from' },
    ].map(({ here, there, way }): Label => {
      const label = fitLabel(lead.label ?? code, CODE_LETTERS);
      const lines = [
        ...endLines(rig, here, WIDTH, `${label}  `),
        ...endLines(rig, there, WIDTH, `${way} `),
      ];
      return {
        width: 2 * HALF,
        height: HEIGHT,
        draw: (at) => {
          box(at, 2 * HALF, HEIGHT);
          rule(at, HALF, HEIGHT, true);
          const step = HEIGHT / lines.length;
          for (const x of [PADDING, HALF + PADDING])
            lines.forEach(({ words, size, bold }, i) =>
              text(at, x, (i + 0.5) * step + size * 0.35, words, {
                'font-size': Number(size.toFixed(2)),
                ...(bold && { 'font-weight': 700 }),
              }),
            );
        },
      };
    }),
  );

interface Line {
  words: string;
  size: number;
  bold: boolean;
}

/**
 * A jack in one line or two, behind a beginning that stays whole: letters shrink first; then the jack
 * gets a line of its own; then the name of the device gives way before the jack.
 */
function endLines(rig: Rig, end: End, width: number, begins: string): Line[] {
  const device = deviceOf(rig, end.device);
  const name = device?.name ?? end.device;
  const jack = (device && jackOf(device, end.jack)?.label) ?? end.jack;
  const bold = !/^(to|from) $/.test(begins);
  const whole = `${begins}${name}, ${jack}`;
  const size = sizeFor(whole, width, CODE_MM);
  if (wideAs(whole, size) <= width + 1e-9) return [{ words: whole, size, bold }];
  const room = lettersIn(width, LEAST_MM);
  const behind = `, ${jack}`;
  const short = fitLabel(name, room - widthOf(begins + behind));
  if (short.length >= Math.min(name.length, LEAST_NAME))
    return [{ words: `${begins}${short}${behind}`, size: LEAST_MM, bold }];
  const own = (words: string): Line => {
    const small = sizeFor(words, width, LEAST_MM);
    return { words: fitLabel(words, lettersIn(width, small)), size: small, bold };
  };
  return [own(`${begins}${fitLabel(name, room - widthOf(begins))}`), own(jack)];
}

/** A name of fewer letters tells nobody which box it is. */
const LEAST_NAME = 8;
