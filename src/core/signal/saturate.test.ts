import fc from 'fast-check';
import { clippedRms, clippedShape, distortion, SINE, touchWord } from './saturate';

test.each([
  [0.5, 1.96, 0.333],
  [1, 6.71, 0.575],
  [2, 17.34, 0.802],
  [4, 30.07, 0.914],
  [8, 38.7, 0.959],
])(
  'driven to %d, soft clipping distorts by %d %% and gives %d of the ceiling',
  (drive, thd, rms) => {
    expect(100 * distortion(clippedShape('soft', SINE, drive))).toBeCloseTo(thd, 1);
    expect(clippedRms('soft', drive)).toBeCloseTo(rms, 3);
  },
);

test('a square wave distorts by 48.3 %', () =>
  expect(distortion(clippedShape('hard', SINE, 1e6))).toBeCloseTo(0.483, 2));

test('a hard limit leaves alone what stays under it', () => {
  expect(clippedRms('hard', 0.9)).toBeCloseTo(0.9 / Math.SQRT2, 6);
  expect(distortion(clippedShape('hard', SINE, 0.99))).toBeCloseTo(0, 6);
});

test('more drive never gives less level or less distortion, and never more than the ceiling', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 50, noNaN: true }),
      fc.double({ min: 1.001, max: 4, noNaN: true }),
      (drive, more) => {
        const [a, b] = [clippedRms('soft', drive), clippedRms('soft', drive * more)];
        const [x, y] = [drive, drive * more].map((d) => distortion(clippedShape('soft', SINE, d)));
        return b >= a && b <= 1 && y! >= x! - 1e-9;
      },
    ),
  );
});

test('words for it', () =>
  expect([0.01, 0.05, 0.2, 0.4].map(touchWord)).toEqual([
    'clean',
    'edge of breakup',
    'crunch',
    'saturated',
  ]));
