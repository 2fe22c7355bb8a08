import { LOW_E, pluck } from './pluck';
import { rmsOf, type Spectrum } from './spectrum';

/** Power of each harmonic, in V². */
const powersOf = ({ re, im }: Spectrum) => re.map((x, n) => (x ** 2 + im[n]! ** 2) / 2);

test('a string plucked or heard at a part of its length lacks the harmonics that rest there', () => {
  const powers = powersOf(pluck({ hertz: 82.41, pluckedAt: 1 / 5, heardAt: 1 / 7 }));
  for (const n of [5, 7, 10, 14, 35]) expect(powers[n]).toBeLessThan(1e-25);
  // The second harmonic against the first, from the formula.
  const size = (n: number) =>
    (Math.sin((n * Math.PI) / 5) * Math.sin((n * Math.PI) / 7) * Math.exp(-0.02 * n)) / n;
  expect(powers[2]! / powers[1]!).toBeCloseTo((size(2) / size(1)) ** 2, 10);
  expect(rmsOf(pluck(LOW_E))).toBeCloseTo(1, 12);
});

test('a piezo hears the force on the bridge, brighter than any pickup further along the string', () => {
  const at = (heardAt: number) => powersOf(pluck({ hertz: 82.41, pluckedAt: 0.17, heardAt }));
  const [bridge, neck] = [at(0), at(0.25)];
  const size = (n: number) => (Math.sin(n * Math.PI * 0.17) * Math.exp(-0.02 * n)) / n;
  expect(bridge[3]! / bridge[1]!).toBeCloseTo((size(3) / size(1)) ** 2, 10);
  const above = (p: Float64Array | number[], n: number) =>
    [...p].slice(n).reduce((sum, x) => sum + x, 0);
  expect(above(bridge, 12)).toBeGreaterThan(above(neck, 12));
});
