import fc from 'fast-check';
import {
  dbuOfDbv,
  dbuOfVolts,
  dbvOfDbu,
  decibels,
  loadingLoss,
  ratio,
  sumOfPowers,
  sumOfVoltages,
  thermalNoiseVolts,
  voltsOfDbu,
} from './level';
import { between } from '../testing/between';

/** Volts RMS, dBu and dBV, worked out apart from the program. */
const LEVELS: [volts: number, dbu: number, dbv: number][] = [
  [0.001, -57.7815, -60.0],
  [0.01, -37.7815, -40.0],
  [0.1, -17.7815, -20.0],
  [0.2451, -9.9947, -12.2131],
  [0.5, -3.8021, -6.0206],
  [0.7746, 0.0, -2.2185],
  [1, 2.2185, 0.0],
  [1.228, 4.0024, 1.784],
  [2, 8.2391, 6.0206],
  [5, 16.1979, 13.9794],
  [10, 22.2185, 20.0],
  [28.3, 31.2542, 29.0357],
];

test.each(LEVELS)('%d V is %d dBu and %d dBV', (volts, dbu, dbv) => {
  expect(dbuOfVolts(volts)).toBeCloseTo(dbu, 3);
  expect(voltsOfDbu(dbu) / volts).toBeCloseTo(1, 4);
  expect(dbvOfDbu(dbu)).toBeCloseTo(dbv, 3);
  expect(dbuOfDbv(dbv)).toBeCloseTo(dbu, 3);
});

/** Output and input in ohms, and what is lost between them in dB. */
const LOADS: [out: number, input: number, db: number][] = [
  [100, 1000000, -0.0009],
  [1000, 10000, -0.8279],
  [1000, 1000000, -0.0087],
  [5000, 10000, -3.5218],
  [10000, 10000, -6.0206],
  [10000, 1000000, -0.0864],
  [25000, 1000000, -0.2145],
  [25000, 150000, -1.3389],
  [100000, 1000000, -0.8279],
  [250000, 500000, -3.5218],
  [600, 600, -6.0206],
  [150, 1500, -0.8279],
  [47, 10000, -0.0407],
];

test.each(LOADS)('%d Ω into %d Ω loses %d dB', (out, input, db) =>
  expect(loadingLoss(out, input)).toBeCloseTo(db, 3),
);

/** Two levels in dB, their sum as powers and as voltages. */
const SUMS: [a: number, b: number, powers: number, voltages: number][] = [
  [0, 0, 3.01, 6.021],
  [0, -3, 1.764, 4.649],
  [0, -6, 0.973, 3.529],
  [0, -10, 0.414, 2.387],
  [0, -20, 0.043, 0.828],
  [-12, -12, -8.99, -5.979],
  [4, -2, 4.973, 7.529],
  [-80, -90, -79.586, -77.613],
  [-100, -100, -96.99, -93.979],
];

test.each(SUMS)(
  '%d dBu and %d dBu are %d dBu as powers, %d dBu as voltages',
  (a, b, powers, voltages) => {
    expect(sumOfPowers(a, b)).toBeCloseTo(powers, 2);
    expect(sumOfVoltages(a, b)).toBeCloseTo(voltages, 2);
  },
);

/** Ohms, and their thermal noise at 295 K over 20 kHz in microvolts. */
const NOISES: [ohms: number, microvolts: number][] = [
  [50, 0.12764],
  [150, 0.22108],
  [1000, 0.57082],
  [4700, 1.2375],
  [10000, 1.80508],
  [47000, 3.91333],
  [100000, 5.70818],
  [500000, 12.76388],
  [1000000, 18.05085],
];

test.each(NOISES)('%d Ω make %d µV of noise', (ohms, microvolts) =>
  expect(thermalNoiseVolts(ohms) * 1e6).toBeCloseTo(microvolts, 3),
);

describe('laws', () => {
  const db = between(-150, 50);
  test('decibels and ratios undo each other', () => {
    fc.assert(fc.property(db, (x) => Math.abs(decibels(ratio(x)) - x) < 1e-9));
  });
  test('silence is minus infinity, both ways', () => {
    expect(decibels(0)).toBe(-Infinity);
    expect(ratio(-Infinity)).toBe(0);
  });
  test('sums do not depend on the order, and are never under the louder one', () => {
    fc.assert(
      fc.property(
        db,
        db,
        (a, b) =>
          Math.abs(sumOfPowers(a, b) - sumOfPowers(b, a)) < 1e-9 &&
          sumOfPowers(a, b) >= Math.max(a, b) - 1e-9,
      ),
    );
  });
  test('as voltages two are at most 6.02 dB over the louder one, as powers at most 3.01 dB', () => {
    fc.assert(
      fc.property(
        db,
        db,
        (a, b) =>
          sumOfVoltages(a, b) - Math.max(a, b) <= 6.0206 + 1e-6 &&
          sumOfPowers(a, b) - Math.max(a, b) <= 3.0103 + 1e-6,
      ),
    );
  });
  test('a higher input loses less, a higher output more', () => {
    const ohms = fc.double({ min: 1, max: 1e7, noNaN: true });
    fc.assert(
      fc.property(ohms, ohms, ohms, (out, a, b) =>
        a <= b
          ? loadingLoss(out, a) <= loadingLoss(out, b) + 1e-12
          : loadingLoss(out, a) >= loadingLoss(out, b) - 1e-12,
      ),
    );
    fc.assert(
      fc.property(ohms, ohms, ohms, (input, a, b) =>
        a <= b ? loadingLoss(a, input) >= loadingLoss(b, input) - 1e-12 : true,
      ),
    );
  });
  test('four times the ohms, twice the noise', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 1e6, noNaN: true }),
        (ohms) => Math.abs(thermalNoiseVolts(4 * ohms) / thermalNoiseVolts(ohms) - 2) < 1e-9,
      ),
    );
  });
});
