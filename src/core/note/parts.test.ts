import fc from 'fast-check';
import { buildCircuit } from '../circuit';
import { DEMO_RIGS } from '../demo';
import { sure } from '../outcome';
import { chainOf } from '../testing/rigs';
import { noteAt, stationNote } from './figures';
import { LOW_E, pluck } from './pluck';
import { joined, type Part, runNormalNote, runNote, togetherVolts } from './run';
import { rmsOf, scaledBy } from './spectrum';
import { playNote } from '.';

/** Parts of some sources that effects have made unrelated, each of its own size. */
const manyParts: fc.Arbitrary<Part[]> = fc
  .array(fc.record({ source: fc.nat(2), size: fc.double({ min: 1e-4, max: 1, noNaN: true }) }), {
    minLength: 17,
    maxLength: 80,
  })
  .map((list) =>
    list.map(({ source, size }, i): Part => {
      const wave = scaledBy(pluck(LOW_E), size);
      const waves: Part['waves'] = [scaledBy(wave, 0.25), wave, scaledBy(wave, 2)];
      return { source: `s${source}`, hertz: LOW_E.hertz, unrelated: ` e${i}`, waves };
    }),
  );

test('of very many parts the loudest of each source stay, and none of their power is lost', () => {
  fc.assert(
    fc.property(manyParts, (parts) => {
      const few = joined(parts);
      for (const source of ['s0', 's1', 's2']) {
        const [before, after] = [parts, few].map((l) => l.filter((p) => p.source === source));
        expect(sure(after).length).toBe(Math.min(16, sure(before).length));
        for (const t of [0, 1, 2] as const)
          expect(togetherVolts(sure(after), t)).toBeCloseTo(togetherVolts(sure(before), t), 9);
        const loudest = Math.max(0, ...sure(before).map((p) => rmsOf(p.waves[1])));
        expect(Math.max(0, ...sure(after).map((p) => rmsOf(p.waves[1])))).toBeGreaterThanOrEqual(
          loudest - 1e-12,
        );
      }
    }),
    { numRuns: 25 },
  );
});

test('what was joined stays one wave where it parts and meets again', () => {
  const parts = sure(fc.sample(manyParts, { numRuns: 1, seed: 4 })[0]);
  const few = joined(parts);
  const twice = joined([...few, ...few]);
  expect(twice).toHaveLength(few.length);
  expect(togetherVolts(twice, 1)).toBeCloseTo(2 * togetherVolts(few, 1), 9);
});

test('a row of forty choruses is played, as loud as its levels say', () => {
  const chorus: [string, { engaged: true }] = ['chorus', { engaged: true }];
  const rig = chainOf([
    'guitar-active',
    ...Array.from({ length: 40 }, () => chorus),
    'console-input',
  ]);
  const note = playNote(rig, sure(rig.sounds[0])).at('d41', 'in');
  expect(note?.touches[1].levelDbu).toBeGreaterThan(-60);
});

test('loudness and bands read alone are those of all figures', () => {
  fc.assert(
    fc.property(manyParts, (parts) => {
      const { loudnessDbu, bandsDbu } = sure(noteAt(parts)).touches[1];
      expect(stationNote(parts)).toEqual({ loudnessDbu, bandsDbu });
    }),
    { numRuns: 10 },
  );
  expect(stationNote([])).toBeUndefined();
});

test('normal picking alone, and only what leads to a place, is what the whole note is there', () => {
  for (const rig of DEMO_RIGS)
    for (const sound of rig.sounds) {
      const circuit = buildCircuit(rig, sound);
      const whole = runNote(circuit);
      const normal = runNormalNote(circuit);
      // One net of every sixth section, and all that leads to it.
      const wanted = circuit.sections
        .filter((_, i) => i % 6 === 0)
        .flatMap(({ nets }) => nets.slice(0, 1));
      const some = runNormalNote(circuit, wanted);
      circuit.nets.forEach((_, net) =>
        expect(togetherVolts(normal.at(net), 1)).toBe(togetherVolts(whole.at(net), 1)),
      );
      for (const net of wanted)
        expect(togetherVolts(some.at(net), 1)).toBe(togetherVolts(whole.at(net), 1));
    }
});
