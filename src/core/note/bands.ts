import { add, complex, invert, magnitude, multiply } from '../units/complex';

/** Middles of the third-octave bands from 50 Hz to 12.5 kHz, in Hz, as they are called. */
export const BANDS = [
  50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500, 3150,
  4000, 5000, 6300, 8000, 10_000, 12_500,
] as const;

/** The band that a frequency lies in: thirds of an octave about 1 kHz, by tenths of a decade (IEC 61260). */
export function bandOf(hertz: number): number | undefined {
  const n = Math.round(10 * Math.log10(hertz / 1000)) + 13;
  return n >= 0 && n < BANDS.length ? n : undefined;
}

/**
 * How much a frequency counts for loudness, as a factor of power: the two filters of ITU-R BS.1770
 * in their analog form (a shelf of 4 dB about 1.7 kHz for the head, a high pass at 38 Hz), relative
 * to 1 kHz, so that a sine there is as loud as its level.
 */
export const loudnessWeight = (hertz: number): number => weight(hertz) / AT_1_KHZ;

function weight(hertz: number): number {
  const over = (f0: number, q: number, num: [number, number, number]) => {
    const s = complex(0, hertz / f0);
    const s2 = multiply(s, s);
    const poly = (a: number, b: number, c: number) =>
      add(add(multiply(s2, complex(a)), multiply(s, complex(b))), complex(c));
    return magnitude(multiply(poly(...num), invert(poly(1, 1 / q, 1))));
  };
  const high = 10 ** (3.999843853973347 / 20);
  const head = over(1681.9744509555319, 0.7071752369554193, [
    high,
    high ** 0.4996667741545416 / 0.7071752369554193,
    1,
  ]);
  return (head * over(38.13547087613982, 0.5003270373253953, [1, 0, 0])) ** 2;
}
const AT_1_KHZ = weight(1000);
