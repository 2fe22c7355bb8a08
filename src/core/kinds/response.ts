import { add, complex, type Complex, invert, magnitude, multiply } from '../units/complex';
import type { Filter, Stage } from './kind';

/**
 * Transfer function of one filter at a frequency in Hz, in the analog form of its kind: first and
 * second order sections of `s = j·f/f0` as every text on filters has them; a shelf is of first
 * order, half of its gain at `hertz`; a peak has its whole gain there.
 */
export function filterAt(filter: Filter, hertz: number): Complex {
  const s = complex(0, hertz / filter.hertz);
  const s2 = multiply(s, s);
  const q = 'q' in filter ? filter.q : 1;
  const second = (a: number, b: number, c: number) =>
    add(add(scale(s2, a), scale(s, b)), complex(c));
  const over = (above: Complex, below: Complex) => multiply(above, invert(below));
  switch (filter.is) {
    case 'low pass 1':
      return invert(add(s, complex(1)));
    case 'high pass 1':
      return over(s, add(s, complex(1)));
    case 'low pass':
      return invert(second(1, 1 / q, 1));
    case 'high pass':
      return over(s2, second(1, 1 / q, 1));
    case 'band pass':
      return over(scale(s, 1 / q), second(1, 1 / q, 1));
    case 'peak': {
      const a = 10 ** (filter.db / 40);
      return over(second(1, a / q, 1), second(1, 1 / (a * q), 1));
    }
    case 'low shelf': {
      const root = 10 ** (filter.db / 40);
      return over(add(s, complex(root)), add(s, complex(1 / root)));
    }
    case 'high shelf': {
      const root = 10 ** (filter.db / 40);
      return over(add(scale(s, root), complex(1)), add(scale(s, 1 / root), complex(1)));
    }
  }
}

const scale = (a: Complex, by: number): Complex => ({ re: a.re * by, im: a.im * by });
const product = (filters: readonly Filter[], hertz: number): Complex =>
  filters.reduce((h, f) => multiply(h, filterAt(f, hertz)), complex(1));
const dbOf = (h: Complex) => 20 * Math.log10(magnitude(h));

/**
 * A cabinet with a close microphone, as a few poles (typical): the box rings about 110 Hz, the cone
 * breaks up about 2.5 kHz and gives little above 5.
 */
export const CABINET: readonly Filter[] = [
  { is: 'high pass', hertz: 75, q: 0.9 },
  { is: 'peak', hertz: 115, q: 1.2, db: 3 },
  { is: 'peak', hertz: 2500, q: 1, db: 4 },
  { is: 'low pass', hertz: 5200, q: 0.8 },
  { is: 'low pass', hertz: 5800, q: 0.9 },
];

const MIDDLE = 1000;
const BRIGHT = 5000;
/** Where the slope lies by which a stage keeps the brightness that its kind states. */
const SLOPE = Math.sqrt(MIDDLE * BRIGHT);

/** What a stage does to frequencies: before its ceiling and behind it. */
export interface Response {
  before: (hertz: number) => Complex;
  after: (hertz: number) => Complex;
}

/**
 * The response of a stage. Its gain is stated at 1 kHz, so each side is 1 in size there; its
 * `tiltDb` is stated at 5 kHz, and what its filters leave of that is made up for by shelves about
 * 2.2 kHz behind the ceiling (a simplification: a kind that states a tilt alone is such a shelf).
 */
export function responseOf(stage: Stage): Response {
  const before = stage.filters?.before ?? [];
  const after = stage.filters?.after ?? (stage.cabinet ? CABINET : []);
  const slopes = shelvesFor(stage.tiltDb - tiltOf(before) - tiltOf(after));
  return { before: atMiddle(before), after: atMiddle([...after, ...slopes]) };
}

/** How much louder filters leave 5 kHz than 1 kHz, in dB: the tilt of a stage that does nothing else. */
export const tiltOf = (filters: readonly Filter[]): number =>
  dbOf(product(filters, BRIGHT)) - dbOf(product(filters, MIDDLE));

/** What a filter leaves of 1 kHz, at which levels and gains are stated, in dB. */
export const gainAtMiddle = (filter: Filter): number => dbOf(filterAt(filter, MIDDLE));

/** A product of filters whose size is 1 at 1 kHz. */
function atMiddle(filters: readonly Filter[]): (hertz: number) => Complex {
  if (!filters.length) return () => complex(1);
  const size = magnitude(product(filters, MIDDLE));
  return (hertz) => scale(product(filters, hertz), 1 / size);
}

/** Shelves that make 5 kHz louder than 1 kHz by so many dB; one of first order gives 13 at most. */
function shelvesFor(db: number): Filter[] {
  if (Math.abs(db) < 1e-6) return [];
  const count = Math.ceil(Math.abs(db) / 9);
  const shelf = (gain: number): Filter => ({ is: 'high shelf', hertz: SLOPE, db: gain });
  const made = (gain: number) =>
    dbOf(filterAt(shelf(gain), BRIGHT)) - dbOf(filterAt(shelf(gain), MIDDLE));
  let [low, high] = [0, 60];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (made(middle) < Math.abs(db) / count) low = middle;
    else high = middle;
  }
  return Array.from({ length: count }, () => shelf(Math.sign(db) * low));
}
