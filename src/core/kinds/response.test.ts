import fc from 'fast-check';
import { magnitude } from '../units/complex';
import type { Stage } from './kind';
import { CABINET, filterAt, gainAtMiddle, responseOf, tiltOf } from './response';
import { between } from '../testing/between';

const dbAt = (h: (hertz: number) => { re: number; im: number }, hertz: number) =>
  20 * Math.log10(magnitude(h(hertz)));
const stage = (tiltDb: number, rest: Partial<Stage> = {}) => ({ tiltDb, ...rest }) as Stage;
const tilts = between(-40, 40);

test('a stage leaves 5 kHz as many dB over 1 kHz as its kind states, and 1 kHz as it is', () => {
  fc.assert(
    fc.property(tilts, fc.boolean(), (tiltDb, cabinet) => {
      const { before, after } = responseOf(stage(tiltDb, cabinet ? { cabinet: true } : {}));
      for (const side of [before, after]) expect(dbAt(side, 1000)).toBeCloseTo(0, 9);
      const total = (hertz: number) => dbAt(before, hertz) + dbAt(after, hertz);
      expect(total(5000) - total(1000)).toBeCloseTo(tiltDb, 4);
    }),
  );
});

test('what is tilted rises or falls all the way: no bump lies between', () => {
  fc.assert(
    fc.property(tilts, (tiltDb) => {
      const { after } = responseOf(stage(tiltDb));
      const heights = Array.from({ length: 40 }, (_, i) => dbAt(after, 100 * 1.13 ** i));
      const steps = heights.slice(1).map((h, i) => (h - heights[i]!) * Math.sign(tiltDb));
      for (const step of steps) expect(step).toBeGreaterThan(-1e-9);
    }),
  );
});

test('filters before the ceiling and behind it count as one in what the kind states', () => {
  const low = { is: 'low pass', hertz: 3000, q: Math.SQRT1_2 } as const;
  const where = { before: [low], after: [] };
  const given = tiltOf([low]);
  expect(given).toBeLessThan(-2);
  // Stated as they leave it: nothing is added. Stated flat: shelves behind give back what they take.
  for (const [tiltDb, added] of [
    [given, 0],
    [0, -given],
  ] as const) {
    const { before, after } = responseOf(stage(tiltDb, { filters: where }));
    expect(dbAt(before, 5000) - dbAt(before, 1000)).toBeCloseTo(given, 9);
    expect(dbAt(after, 5000) - dbAt(after, 1000)).toBeCloseTo(added, 4);
  }
});

test('a loudspeaker of a cabinet is one where it states no filters of its own', () => {
  const tiltDb = tiltOf(CABINET);
  const boxed = responseOf(stage(tiltDb, { cabinet: true }));
  const open = responseOf(stage(tiltDb));
  // The lowest and the highest octave are gone from the one, and only tilted in the other.
  for (const hertz of [40, 12_000])
    expect(dbAt(boxed.after, hertz)).toBeLessThan(dbAt(open.after, hertz) - 3);
});

test('what a filter leaves of 1 kHz is what it does there', () => {
  for (const filter of CABINET)
    expect(gainAtMiddle(filter)).toBeCloseTo(
      20 * Math.log10(magnitude(filterAt(filter, 1000))),
      12,
    );
  expect(gainAtMiddle({ is: 'high shelf', hertz: 10, db: 6 })).toBeCloseTo(6, 1);
  expect(gainAtMiddle({ is: 'high shelf', hertz: 100_000, db: 6 })).toBeCloseTo(0, 1);
});
