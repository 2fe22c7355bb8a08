import fc from 'fast-check';
import { allOf, anyOf, asSet, howMany } from '.';
import { add, type Complex, complex, inverted, magnitude, multiply, subtract } from './complex';
import {
  clockHour,
  dbuOfDbv,
  dbuOfVolts,
  dbvOfDbu,
  fixed,
  loadingLoss,
  readKnob,
  showChange,
  showLength,
  showLevel,
  sumOfPowers,
  sumOfVoltages,
  thermalNoiseVolts,
  voltsOfDbu,
  withPrefix,
} from '.';
import { between } from '../testing/between';

describe('levels', () => {
  test('0 dBu is 0.7746 V, and dBu is 2.218 above dBV', () => {
    expect(dbuOfVolts(0.7746)).toBeCloseTo(0, 6);
    expect(dbuOfDbv(0)).toBeCloseTo(2.218, 3);
    expect(dbuOfDbv(-10)).toBeCloseTo(-7.78, 2);
    expect(dbvOfDbu(2.218)).toBeCloseTo(0, 3);
  });
  test('volts and dBu go there and back', () => {
    fc.assert(
      fc.property(between(-140, 60), (dbu) => Math.abs(dbuOfVolts(voltsOfDbu(dbu)) - dbu) < 1e-9),
    );
  });
  test('loading: 10 kΩ into 1 MΩ loses 0.09 dB, into 10 kΩ 6.02 dB', () => {
    expect(loadingLoss(10_000, 1e6)).toBeCloseTo(-0.09, 2);
    expect(loadingLoss(10_000, 10_000)).toBeCloseTo(-6.02, 2);
    expect(loadingLoss(10_000, Infinity)).toBe(0);
  });
  test('two equal levels add to +6.02 dB as voltages and +3.01 dB as powers', () => {
    expect(sumOfVoltages(-20, -20)).toBeCloseTo(-13.98, 2);
    expect(sumOfPowers(-20, -20)).toBeCloseTo(-16.99, 2);
  });
  test('thermal noise of 10 kΩ over 20 kHz at 295 K is 1.81 µV, −112.6 dBu', () => {
    expect(thermalNoiseVolts(10_000) * 1e6).toBeCloseTo(1.81, 2);
    expect(dbuOfVolts(thermalNoiseVolts(10_000))).toBeCloseTo(-112.65, 2);
  });
});

describe('display', () => {
  test('figures carry units and a true minus sign', () => {
    expect(showLevel(-24.04)).toBe('−24.0 dBu');
    expect(showLevel(2.218, 'dBV')).toBe('0.0 dBV');
    expect(showLevel(-Infinity)).toBe('silent');
    expect(showChange(3)).toBe('+3.0 dB');
    expect(showChange(0.001)).toBe('0.0 dB');
    expect(fixed(-0.01)).toBe('0.0');
  });
  test.each([
    [62_500, 'Ω', '62.5 kΩ'],
    [3.3e-10, 'F', '330 pF'],
    [796_000, 'Hz', '796 kHz'],
    [1e6, 'Ω', '1 MΩ'],
    [0, 'Ω', '0 Ω'],
  ])('%d %s is %s', (v, unit, text) => expect(withPrefix(v, unit)).toBe(text));
  test('lengths in both systems', () => {
    expect(showLength(0.3)).toBe('30 cm');
    expect(showLength(3.048, 'imperial')).toBe('10.0 ft');
  });
  test.each([
    [0, "7 o'clock"],
    [5, "12 o'clock"],
    [10, "5 o'clock"],
    [7.5, 'half past 2'],
    [5.6, 'half past 12'],
  ])('a knob at %d points to %s', (v, text) => expect(clockHour(v)).toBe(text));
});

test.each([
  [1e9, '1 GΩ'],
  [1e6, '1 MΩ'],
  [999_600, '1 MΩ'],
  [62_500, '62.5 kΩ'],
  [8, '8 Ω'],
  [-8, '−8 Ω'],
  [0.0069, '6.9 mΩ'],
  [4.7e-6, '4.7 µΩ'],
  [2.2e-9, '2.2 nΩ'],
  [3.3e-10, '330 pΩ'],
  [1e-15, '0.001 pΩ'],
  [0, '0 Ω'],
  [Infinity, 'open'],
  [-Infinity, 'none'],
])('%p ohms are written %s', (value, words) => {
  expect(withPrefix(value, 'Ω')).toBe(words);
});

test('lengths: centimetres under a metre, two places over it, tenths of a foot', () => {
  expect([0.3, 0.999, 1, 1.234, 12.5].map((m) => showLength(m))).toEqual([
    ...['30 cm', '100 cm', '1 m', '1.23 m', '12.5 m'],
  ]);
  expect(showLength(1, 'imperial')).toBe('3.3 ft');
});

/** A matrix of rows as one list and back. */
const inverseOf = (m: Complex[][]): Complex[][] => {
  const list = inverted(Float64Array.from(m.flat().flatMap((c) => [c.re, c.im])), m.length);
  return m.map((row, i) =>
    row.map((_, j) => {
      const at = 2 * (i * m.length + j);
      return complex(list[at]!, list[at + 1]);
    }),
  );
};

test('a matrix times its inverse is one, pivots that are nought included', () => {
  const some = between(-5, 5);
  const cell = fc.record({ re: some, im: some });
  const product = (a: Complex[][], b: Complex[][]) =>
    a.map((row, i) =>
      b
        .map((_, j) => row.reduce((sum, x, k) => add(sum, multiply(x, b[k]![j]!)), complex(0)))
        .map((x, j) => magnitude(subtract(x, complex(i === j ? 1 : 0)))),
    );
  fc.assert(
    fc.property(
      fc.array(fc.array(cell, { minLength: 4, maxLength: 4 }), { minLength: 4, maxLength: 4 }),
      (m) => {
        // Dominant off the diagonal, so that the first pivots have to be looked for.
        const big = m.map((row, i) =>
          row.map((x, j) => (j === (i + 1) % 4 ? complex(30 + x.re, x.im) : x)),
        );
        expect(Math.max(...product(big, inverseOf(big)).flat())).toBeLessThan(1e-9);
      },
    ),
  );
  const swap = [
    [complex(0), complex(2)],
    [complex(0, 4), complex(0)],
  ];
  expect(Math.max(...product(swap, inverseOf(swap)).flat())).toBeLessThan(1e-12);
});

test('a knob is typed as a tech says it, and what it says of itself is understood', () => {
  for (let half = 0; half <= 20; half++)
    expect([half, readKnob(clockHour(half / 2))]).toEqual([half, half / 2]);
  expect(
    ['7,5', ' 7.5 ', '2:30', 'noon', 'full', 'off', "3 o'clock", 'quarter past 12'].map(readKnob),
  ).toEqual([7.5, 7.5, 7.5, 5, 10, 0, 8, 5.25]);
  // Nowhere a knob points: half past five and six o'clock, eleven on a scale of ten, words.
  for (const wrong of ['half past 5', "6 o'clock", '11', '13:00', 'loud', '', '-1'])
    expect([wrong, readKnob(wrong)]).toEqual([wrong, undefined]);
});

test('several, and one of several, as they are said', () => {
  const some = (n: number) => ['Kiln', 'Slate', 'Ferry'].slice(0, n);
  expect([1, 2, 3].map((n) => allOf(some(n)))).toEqual([
    'Kiln',
    'Kiln and Slate',
    'Kiln, Slate and Ferry',
  ]);
  expect([1, 2, 3].map((n) => anyOf(some(n)))).toEqual([
    'Kiln',
    'Kiln or Slate',
    'Kiln, Slate or Ferry',
  ]);
  expect([allOf([]), anyOf(new Set([50, 60]))]).toEqual(['', '50 or 60']);
});

test('so many of something, and a value as it was set', () => {
  expect([0, 1, 2].map((n) => howMany(n, 'lead'))).toEqual(['0 leads', '1 lead', '2 leads']);
  expect([1, 3].map((n) => howMany(n, 'press', 'presses'))).toEqual(['1 press', '3 presses']);
  expect([asSet(-58, 'dBu'), asSet(0.25, ''), asSet(12, 'ms')]).toEqual([
    '−58 dBu',
    '0.25',
    '12 ms',
  ]);
});
