import fc from 'fast-check';
import {
  boundOf,
  delayed,
  HARMONICS,
  peakOf,
  rmsOf,
  samplesOf,
  scaledBy,
  type Spectrum,
  spectrum,
  spectrumOf,
  sumOf,
} from './spectrum';
import { between } from '../testing/between';

/** A few harmonics of any size and phase. */
const waves: fc.Arbitrary<Spectrum> = fc
  .array(
    fc.record({
      n: fc.integer({ min: 1, max: HARMONICS }),
      re: between(-2, 2),
      im: between(-2, 2),
    }),
    { minLength: 1, maxLength: 12 },
  )
  .map((parts) => {
    const s = spectrum();
    for (const { n, re, im } of parts) [s.re[n], s.im[n]] = [re, im];
    return s;
  });

/** The highest instant by asking the sum itself at many times. */
function highest(s: Spectrum, times: number): number {
  let most = 0;
  for (let i = 0; i < times; i++) {
    const t = (2 * Math.PI * i) / times;
    let x = 0;
    for (let n = 1; n <= HARMONICS; n++)
      x += s.re[n]! * Math.cos(n * t) - s.im[n]! * Math.sin(n * t);
    most = Math.max(most, Math.abs(x));
  }
  return most;
}

test('one sine of one volt: its highest instant, its bound and its RMS', () => {
  const s = spectrum();
  s.re[3] = 1;
  expect(peakOf(s)).toBeCloseTo(1, 9);
  expect(boundOf(s)).toBe(1);
  expect(rmsOf(s)).toBeCloseTo(Math.SQRT1_2, 12);
});

test('no instant is higher than the bound, nor lower than the RMS; it is found as the sum itself finds it', () => {
  fc.assert(
    fc.property(waves, (s) => {
      const peak = peakOf(s);
      expect(peak).toBeLessThanOrEqual(boundOf(s) + 1e-9);
      expect(peak).toBeGreaterThanOrEqual(rmsOf(s) - 1e-9);
      // Eight samples to the highest harmonic's period miss at most 8 % of it.
      expect(peak).toBeGreaterThanOrEqual(0.92 * highest(s, 2001));
    }),
    { numRuns: 8 },
  );
});

test('a wave goes to samples and back as it was, and its power is that of its samples', () => {
  fc.assert(
    fc.property(waves, (s) => {
      const samples = samplesOf(s);
      const back = spectrumOf(samples);
      for (let n = 1; n <= HARMONICS; n++) {
        expect(back.re[n]).toBeCloseTo(s.re[n]!, 9);
        expect(back.im[n]).toBeCloseTo(s.im[n]!, 9);
      }
      const power = samples.reduce((sum, x) => sum + x * x, 0) / samples.length;
      expect(Math.sqrt(power)).toBeCloseTo(rmsOf(s), 9);
    }),
    { numRuns: 12 },
  );
});

test('waves add, grow and come later; what comes a whole period later is the same', () => {
  fc.assert(
    fc.property(waves, waves, between(-3, 3), (a, b, by) => {
      const sum = samplesOf(sumOf(a, b));
      const [one, two] = [samplesOf(a), samplesOf(b)];
      sum.forEach((x, i) => expect(x).toBeCloseTo(one[i]! + two[i]!, 9));
      expect(peakOf(scaledBy(a, by))).toBeCloseTo(Math.abs(by) * peakOf(a), 9);
      const late = delayed(a, 100, 10);
      for (let n = 1; n <= HARMONICS; n++) expect(late.re[n]).toBeCloseTo(a.re[n]!, 6);
      // Half a period later every odd harmonic is turned, every even one is as it was.
      const half = delayed(a, 100, 5);
      for (let n = 1; n <= HARMONICS; n++)
        expect(half.re[n]).toBeCloseTo((n % 2 ? -1 : 1) * a.re[n]!, 6);
    }),
    { numRuns: 20 },
  );
});
