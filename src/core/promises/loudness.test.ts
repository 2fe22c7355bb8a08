import fc from 'fast-check';
import { touringRig } from '../demo';
import { effectiveRig } from '../control';
import { notesAt } from '../note';
import { sure } from '../outcome';
import { analyse } from '../report';
import { promiseWords, type Rig, type RigPromise } from '../rig';
import { chainOf, sound } from '../testing/rigs';

const check = (rig: Rig, promise: RigPromise) =>
  sure(analyse({ ...rig, promises: [promise] }).promises[0]);

/** One sound as it is, one whose equaliser does something to it. */
const turned = (settings: Record<string, number>): Rig =>
  chainOf(
    ['guitar-humbucker', 'buffer', 'eq', ['console-input', { settings: { input: 'line' } }]],
    1,
    [
      sound('plain', 'Plain', ['d0', 'd1']),
      sound('eq', 'Turned', ['d0', 'd1', 'd2'], { d2: { settings } }),
    ],
  );
const loudness = (rig: Rig) =>
  notesAt(effectiveRig(rig), 'd3').map((h) => h.note!.touches[1].loudnessDbu);
const within = (db: number, by?: 'loudness'): RigPromise => ({
  id: 'p',
  type: 'levels-within',
  destination: 'd3',
  db,
  ...(by && { by }),
});

test('a low boost is no louder at 1 kHz and louder as a note: the promise says which it is by', () => {
  const rig = turned({ low: 12, mid: 0, high: 0, level: 0 });
  expect(check(rig, within(2)).kept).toBe(true);
  const broken = check(rig, within(2, 'loudness'));
  expect(broken.kept).toBe(false);
  const [plain, eq] = loudness(rig);
  const apart = (eq! - plain!).toFixed(1);
  expect(broken.breaches[0]!.why).toContain('dBu of loudness');
  expect(broken.breaches[0]!.why).toContain(`${apart} dB apart`);
  expect(promiseWords(rig, within(2, 'loudness'))).toBe(
    'loudnesses at Device 3 lie within 2 dB of one another, in every sound',
  );
});

test('kept by loudness where the notes lie as close as was promised, whatever is turned', () => {
  const knob = fc.integer({ min: -12, max: 12 });
  fc.assert(
    fc.property(knob, knob, knob, fc.integer({ min: 1, max: 9 }), (low, mid, high, db) => {
      const rig = turned({ low, mid, high, level: 0 });
      const [plain, eq] = loudness(rig);
      expect(check(rig, within(db, 'loudness')).kept).toBe(Math.abs(eq! - plain!) <= db);
    }),
    { numRuns: 25 },
  );
});

test('of two instruments that arrive together each is judged by itself, and a solo over the others', () => {
  const solo: RigPromise = {
    ...within(1, 'loudness'),
    type: 'levels-within',
    solos: ['eq'],
    soloDb: 6,
  } as RigPromise;
  const rig = turned({ low: 0, mid: 0, high: 0, level: 6 });
  expect(check(rig, solo).kept).toBe(true);
  expect(check(turned({ low: 0, mid: 0, high: 0, level: 0 }), solo).breaches[0]!.why).toMatch(
    /dB (under|over) the mean of the others \(.* dBu of loudness\)/,
  );
});

test('signal-to-noise, weighted, is the note’s loudness over the weighted noise, side by side', () => {
  const rig = effectiveRig(touringRig);
  for (const destination of ['house', 'wide'])
    for (const h of notesAt(rig, destination)) {
      const over = h.weightedSignalToNoiseDb;
      if (over === null || h.note === null) continue;
      const promise = (db: number): RigPromise => ({
        id: 'p',
        type: 'noise-under',
        destination,
        db,
        by: 'loudness',
        sounds: [h.sound],
      });
      // At the louder of its sides; another may be worse.
      const under = check(touringRig, promise(Math.max(1, over + 0.1)));
      expect(under.kept).toBe(false);
      expect(under.breaches[0]!.why).toMatch(
        /dB, weighted; most of the noise comes from .*, about .*Hz/,
      );
      if (destination === 'house' && over > 2)
        expect(check(touringRig, promise(over - 0.1)).kept).toBe(true);
    }
});
