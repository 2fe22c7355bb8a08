import fc from 'fast-check';
import { buildCircuit, solveSection } from '../circuit';
import { responseOf, type Stage } from '../kinds';
import { sure } from '../outcome';
import { chainOf, sound } from '../testing/rigs';
import { LOW_E } from './pluck';
import { liftOf, sectionResponses, stageResponse } from './responses';
import { HARMONICS } from './spectrum';

/** An equaliser set so, as the stage that it is in a rig. */
function equaliser(settings: Record<string, number>): Stage {
  const rig = chainOf(['guitar-active', ['eq', { settings }], 'recorder'], 1, [
    sound('s', 'S', ['d1']),
  ]);
  const { stages } = buildCircuit(rig, rig.sounds[0]);
  return sure(stages.find((s) => s.device === 'd1')).stage;
}
const band = fc.integer({ min: -15, max: 15 });

test('what is remembered of a stage is its response, at every harmonic and however often it is asked', () => {
  fc.assert(
    fc.property(band, band, band, (low, mid, high) => {
      const stage = equaliser({ low, mid, high });
      const { before, after } = responseOf(stage);
      for (let asked = 0; asked < 2; asked++) {
        const known = stageResponse(equaliser({ low, mid, high }), LOW_E.hertz);
        for (let n = 1; n <= HARMONICS; n += 7) {
          const [b, a] = [before(n * LOW_E.hertz), after(n * LOW_E.hertz)];
          expect(known.before?.re[n] ?? 1).toBeCloseTo(b.re, 9);
          expect(known.before?.im[n] ?? 0).toBeCloseTo(b.im, 9);
          expect(known.after?.re[n] ?? 1).toBeCloseTo(a.re, 9);
          expect(known.after?.im[n] ?? 0).toBeCloseTo(a.im, 9);
        }
      }
    }),
    { numRuns: 20 },
  );
});

test('a lift is what an equaliser adds over 1 kHz, where it adds it; a cut and a flat one lift nothing', () => {
  const lows = liftOf(equaliser({ low: 12 }), LOW_E.hertz);
  expect(lows.hertz).toBeLessThan(200);
  expect(lows.db).toBeGreaterThan(9);
  expect(lows.db).toBeLessThanOrEqual(12);
  const highs = liftOf(equaliser({ high: 12 }), LOW_E.hertz);
  expect(highs.hertz).toBeGreaterThan(3000);
  // Cut at 1 kHz, everything else stands out.
  expect(liftOf(equaliser({ mid: -12 }), LOW_E.hertz).db).toBeGreaterThan(9);
  expect(liftOf(equaliser({}), LOW_E.hertz).db).toBeLessThan(0.01);
  expect(liftOf(equaliser({ low: -12 }), LOW_E.hertz).db).toBeLessThan(0.5);
});

test('what is remembered of a section is its solution; another lead is another section', () => {
  for (const metres of [1, 6, 12]) {
    const rig = chainOf(['guitar-humbucker', 'drive-low', 'recorder'], metres);
    const circuit = buildCircuit(rig, rig.sounds[0]);
    const section = sure(circuit.sections.find((s) => s.drivers.some((d) => d.device === 'd0')));
    const over = sectionResponses(circuit, section)(LOW_E.hertz, 0, 0);
    for (let n = 1; n <= HARMONICS; n += 9) {
      const { re, im } = solveSection(circuit, section, n * LOW_E.hertz).response(0, 0);
      expect(over.re[n]).toBeCloseTo(re, 12);
      expect(over.im[n]).toBeCloseTo(im, 12);
    }
  }
});
