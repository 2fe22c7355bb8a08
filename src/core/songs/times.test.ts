import fc from 'fast-check';
import { DIVISIONS, type Division, divisionMs, quarterMs, rateHz, slipOf, tapped } from './tempo';
import { divisionTable } from './delays';
import { between } from '../testing/between';

/** Tempo, note value, time in ms and rate in Hz, worked out apart from the program. */
const TIMES: [bpm: number, division: Division, ms: number, hz: number][] = [
  [60, 'whole', 4000.0, 0.25],
  [60, 'dotted half', 3000.0, 0.33333],
  [60, 'half', 2000.0, 0.5],
  [60, 'dotted quarter', 1500.0, 0.66667],
  [60, 'half triplet', 1333.3333, 0.75],
  [60, 'quarter', 1000.0, 1.0],
  [60, 'dotted eighth', 750.0, 1.33333],
  [60, 'quarter triplet', 666.6667, 1.5],
  [60, 'eighth', 500.0, 2.0],
  [60, 'eighth triplet', 333.3333, 3.0],
  [60, 'sixteenth', 250.0, 4.0],
  [60, 'sixteenth triplet', 166.6667, 6.0],
  [72, 'whole', 3333.3333, 0.3],
  [72, 'dotted half', 2500.0, 0.4],
  [72, 'half', 1666.6667, 0.6],
  [72, 'dotted quarter', 1250.0, 0.8],
  [72, 'half triplet', 1111.1111, 0.9],
  [72, 'quarter', 833.3333, 1.2],
  [72, 'dotted eighth', 625.0, 1.6],
  [72, 'quarter triplet', 555.5556, 1.8],
  [72, 'eighth', 416.6667, 2.4],
  [72, 'eighth triplet', 277.7778, 3.6],
  [72, 'sixteenth', 208.3333, 4.8],
  [72, 'sixteenth triplet', 138.8889, 7.2],
  [96, 'whole', 2500.0, 0.4],
  [96, 'dotted half', 1875.0, 0.53333],
  [96, 'half', 1250.0, 0.8],
  [96, 'dotted quarter', 937.5, 1.06667],
  [96, 'half triplet', 833.3333, 1.2],
  [96, 'quarter', 625.0, 1.6],
  [96, 'dotted eighth', 468.75, 2.13333],
  [96, 'quarter triplet', 416.6667, 2.4],
  [96, 'eighth', 312.5, 3.2],
  [96, 'eighth triplet', 208.3333, 4.8],
  [96, 'sixteenth', 156.25, 6.4],
  [96, 'sixteenth triplet', 104.1667, 9.6],
  [120, 'whole', 2000.0, 0.5],
  [120, 'dotted half', 1500.0, 0.66667],
  [120, 'half', 1000.0, 1.0],
  [120, 'dotted quarter', 750.0, 1.33333],
  [120, 'half triplet', 666.6667, 1.5],
  [120, 'quarter', 500.0, 2.0],
  [120, 'dotted eighth', 375.0, 2.66667],
  [120, 'quarter triplet', 333.3333, 3.0],
  [120, 'eighth', 250.0, 4.0],
  [120, 'eighth triplet', 166.6667, 6.0],
  [120, 'sixteenth', 125.0, 8.0],
  [120, 'sixteenth triplet', 83.3333, 12.0],
  [132.5, 'whole', 1811.3208, 0.55208],
  [132.5, 'dotted half', 1358.4906, 0.73611],
  [132.5, 'half', 905.6604, 1.10417],
  [132.5, 'dotted quarter', 679.2453, 1.47222],
  [132.5, 'half triplet', 603.7736, 1.65625],
  [132.5, 'quarter', 452.8302, 2.20833],
  [132.5, 'dotted eighth', 339.6226, 2.94444],
  [132.5, 'quarter triplet', 301.8868, 3.3125],
  [132.5, 'eighth', 226.4151, 4.41667],
  [132.5, 'eighth triplet', 150.9434, 6.625],
  [132.5, 'sixteenth', 113.2075, 8.83333],
  [132.5, 'sixteenth triplet', 75.4717, 13.25],
  [184, 'whole', 1304.3478, 0.76667],
  [184, 'dotted half', 978.2609, 1.02222],
  [184, 'half', 652.1739, 1.53333],
  [184, 'dotted quarter', 489.1304, 2.04444],
  [184, 'half triplet', 434.7826, 2.3],
  [184, 'quarter', 326.087, 3.06667],
  [184, 'dotted eighth', 244.5652, 4.08889],
  [184, 'quarter triplet', 217.3913, 4.6],
  [184, 'eighth', 163.0435, 6.13333],
  [184, 'eighth triplet', 108.6957, 9.2],
  [184, 'sixteenth', 81.5217, 12.26667],
  [184, 'sixteenth triplet', 54.3478, 18.4],
];

test.each(TIMES)(
  'at %d bpm a %s lasts %d ms, a cycle of it runs at %d Hz',
  (bpm, division, ms, hz) => {
    expect(divisionMs(bpm, division)).toBeCloseTo(ms, 3);
    expect(rateHz(bpm, DIVISIONS[division])).toBeCloseTo(hz, 4);
    expect(divisionTable(bpm).find((d) => d.division === division)!.ms).toBeCloseTo(ms, 3);
  },
);

/**
 * Off by ms, share that a repeat keeps, the repeat at which more than 20 ms shows, how far it is
 * down in dB, whether it is heard.
 */
const SLIPS: [error: number, keeps: number, repeat: number, down: number, heard: boolean][] = [
  [1, 0, 21, Infinity, false],
  [1, 0.3, 21, 209.1515, false],
  [1, 0.6, 21, 88.7395, false],
  [1, 0.9, 21, 18.303, true],
  [2.5, 0, 9, Infinity, false],
  [2.5, 0.3, 9, 83.6606, false],
  [2.5, 0.6, 9, 35.4958, true],
  [2.5, 0.9, 9, 7.3212, true],
  [4, 0, 6, Infinity, false],
  [4, 0.3, 6, 52.2879, false],
  [4, 0.6, 6, 22.1849, true],
  [4, 0.9, 6, 4.5757, true],
  [7, 0, 3, Infinity, false],
  [7, 0.3, 3, 20.9151, true],
  [7, 0.6, 3, 8.8739, true],
  [7, 0.9, 3, 1.8303, true],
  [9.9, 0, 3, Infinity, false],
  [9.9, 0.3, 3, 20.9151, true],
  [9.9, 0.6, 3, 8.8739, true],
  [9.9, 0.9, 3, 1.8303, true],
  [10, 0, 3, Infinity, false],
  [10, 0.3, 3, 20.9151, true],
  [10, 0.6, 3, 8.8739, true],
  [10, 0.9, 3, 1.8303, true],
  [15, 0, 2, Infinity, false],
  [15, 0.3, 2, 10.4576, true],
  [15, 0.6, 2, 4.437, true],
  [15, 0.9, 2, 0.9151, true],
  [20, 0, 2, Infinity, false],
  [20, 0.3, 2, 10.4576, true],
  [20, 0.6, 2, 4.437, true],
  [20, 0.9, 2, 0.9151, true],
  [20.1, 0, 1, 0, true],
  [20.1, 0.3, 1, 0, true],
  [20.1, 0.6, 1, 0, true],
  [20.1, 0.9, 1, 0, true],
  [45, 0, 1, 0, true],
  [45, 0.3, 1, 0, true],
  [45, 0.6, 1, 0, true],
  [45, 0.9, 1, 0, true],
  [-4, 0, 6, Infinity, false],
  [-4, 0.3, 6, 52.2879, false],
  [-4, 0.6, 6, 22.1849, true],
  [-4, 0.9, 6, 4.5757, true],
  [-12, 0, 2, Infinity, false],
  [-12, 0.3, 2, 10.4576, true],
  [-12, 0.6, 2, 4.437, true],
  [-12, 0.9, 2, 0.9151, true],
];

test.each(SLIPS)(
  'an echo %d ms off that keeps %d: repeat %d, %d dB down',
  (error, keeps, repeat, down, heard) => {
    const slip = slipOf(error, keeps);
    expect(slip.repeat).toBe(repeat);
    expect(slip.heard).toBe(heard);
    if (down === Infinity) expect(slip.downDb).toBe(Infinity);
    else expect(slip.downDb!).toBeCloseTo(down, 3);
  },
);

test('an echo that is on time never slips, whatever it keeps', () => {
  fc.assert(fc.property(between(0, 1), (keeps) => slipOf(0, keeps).repeat === null));
});

test('time and rate are each other turned over', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 20, max: 400, noNaN: true }),
      fc.constantFrom(...(Object.keys(DIVISIONS) as Division[])),
      (bpm, d) => Math.abs(divisionMs(bpm, d) * rateHz(bpm, DIVISIONS[d]) - 1000) < 1e-6,
    ),
  );
});

test('half the tempo, twice the time', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 40, max: 400, noNaN: true }),
      (bpm) => Math.abs(quarterMs(bpm / 2) - 2 * quarterMs(bpm)) < 1e-9,
    ),
  );
});

describe('taps', () => {
  test('two presses give a tempo; of one interval no spread is known', () =>
    expect(tapped([0, 500])).toEqual({
      presses: 2,
      meanMs: 500,
      spreadMs: null,
      errorMs: null,
      bpm: 120,
    }));
  test('one press gives nothing', () => expect(tapped([42])).toBeUndefined());
  test('even presses give their tempo exactly, however many', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 12 }), fc.integer({ min: 200, max: 1500 }), (n, ms) => {
        const t = tapped(Array.from({ length: n }, (_, i) => 77 + i * ms))!;
        return Math.abs(t.bpm - 60_000 / ms) < 1e-9 && (t.spreadMs ?? 0) < 1e-9;
      }),
    );
  });
  test('the mean hangs on the first and last press alone', () => {
    const straight = tapped([0, 500, 1000, 1500])!;
    const crooked = tapped([0, 430, 1090, 1500])!;
    expect(crooked.meanMs).toBe(straight.meanMs);
    expect(crooked.spreadMs).toBeGreaterThan(50);
  });
  test('more presses of the same unsteadiness are off by less', () => {
    const foot = (n: number) =>
      tapped(Array.from({ length: n }, (_, i) => i * 500 + (i % 2 ? 15 : 0)))!;
    expect(foot(8).errorMs!).toBeLessThan(foot(4).errorMs!);
  });
});
