import fc from 'fast-check';
import { analyse, FixTrial } from '../report';
import { applyEdits, type Rig, type RigPromise } from '../rig';
import { between } from '../testing/between';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import { decibels, ratio } from '../units';

/** A way back into the mixer ahead, over a second mixer that takes it twice, each at a level of its own. */
const twoWays = (levelA: number, levelB: number, promises: RigPromise[] = []): Rig =>
  rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('m', 'mixer-line', 'Mix'),
      device('f', 'splitter-buffered', 'Fork', { settings: { select: 'both' } }),
      device('f2', 'splitter-buffered', 'Second fork', { settings: { select: 'both' } }),
      device('v', 'boost', 'Back', { settings: { gain: 0 } }),
      device('m2', 'mixer-line', 'Second mix', { settings: { levelA, levelB } }),
      device('desk', 'console-input', 'Desk', { settings: { input: 'line' } }),
      device('t', 'tuner-rack', 'Tuner'),
    ],
    [
      lead('1', 'g.out', 'm.a', 1),
      lead('2', 'm.out', 'f.in', 1),
      lead('3', 'f.a', 'desk.in', 1),
      lead('4', 'f.b', 'f2.in', 1),
      lead('5', 'f2.a', 'v.in', 1),
      lead('6', 'v.out', 'm2.a', 1),
      lead('7', 'f2.b', 'm2.b', 1),
      lead('8', 'm2.out', 'm.b', 1),
    ],
    [sound('s1', 'One', ['v'])],
    { promises },
  );

const look = (rig: Rig) => {
  const report = analyse(rig);
  const howls = report.findings.filter((f) => f.rule === 'howl');
  return { report, howls, cycles: report.sounds[0]!.cycles };
};

test('two ways round of which each comes to rest howl together', () => {
  const { howls, cycles } = look(twoWays(6, 6));
  expect(cycles.map((c) => c.fate)).toEqual(['howls together', 'howls together']);
  expect(howls.map((f) => f.severity)).toEqual(['fault', 'fault']);
  const [byItself = '', together = ''] = howls[0]!.why.split(', but with the other ways round, ');
  expect(byItself).toMatch(/^Once round it loses [45]\.\d dB$/);
  expect(together).toMatch(/^where all arrive in phase, it gains 1\.\d dB, so it can howl\. /);
  expect(together).toContain('The figures leave the way back out.');
  const alone = look(twoWays(6, 0));
  expect(alone.cycles.map((c) => c.fate)).toEqual(['rests']);
  expect(alone.howls.map((f) => f.severity)).toEqual(['caution']);
  expect(alone.howls[0]!.why).toContain('Levels at 1 kHz count what comes round;');
});

test('what opens one of two circles that howl together was tried: the other comes to rest', () => {
  const trial = new FixTrial(twoWays(6, 6));
  const howls = trial.report.findings.filter((f) => f.rule === 'howl');
  let offered = 0;
  for (const finding of howls)
    for (const { fix, tried } of trial.waysOut(finding)) {
      offered++;
      const after = look(valueOf(applyEdits(trial.rig, fix.edits)).rig);
      expect(after.howls.filter((f) => f.severity === 'fault')).toEqual([]);
      expect([tried.cures, tried.breaks]).toEqual([true, []]);
    }
  expect(offered).toBeGreaterThan(0);
});

test('what is said of a circle is what the levels do, and together ways add up', () => {
  const open = (rig: Rig): Rig => ({ ...rig, leads: rig.leads.filter((l) => l.id !== '8') });
  const level = (rig: Rig) => analyse(rig).sounds[0]!.destinations[0]!.levelDbu!.soft;
  let [rested, howled] = [0, 0];
  fc.assert(
    fc.property(between(0, 9), between(0, 9), (a, b) => {
      const rig = twoWays(a, b);
      const { cycles, howls } = look(rig);
      const gain = cycles.reduce((sum, c) => sum + ratio(c.gainDb), 0);
      if (!cycles.length) return;
      for (const c of cycles) expect(ratio(c.togetherDb)).toBeCloseTo(gain, 4);
      const counts = howls.every((f) => f.why.includes('Levels at 1 kHz count'));
      expect(counts).toBe(gain < 0.99);
      if (counts) rested++;
      else howled++;
      // Nearer to one the ceilings of the stages hold the level down.
      if (counts && gain > 0.7) return;
      const more = level(rig) - level(open(rig));
      // Open, the mixer ahead is loaded as it was: what comes round is all that differs.
      expect(more).toBeCloseTo(counts ? -decibels(1 - gain) : 0, 1);
    }),
    { numRuns: 40, seed: 5 },
  );
  expect(Math.min(rested, howled)).toBeGreaterThan(5);
});

test('a way round through many boxes gains what they gain together, however long it is', () => {
  for (const boxes of [1, 5, 12]) {
    const rig = twoWays(5, 0);
    const added = Array.from({ length: boxes }, (_, i) => `b${i}`);
    const long: Rig = {
      ...rig,
      devices: [...rig.devices, ...added.map((id) => device(id, 'buffer', id))],
      leads: [
        ...rig.leads.filter((l) => l.id !== '8'),
        ...[...added, 'm'].map((id, i) =>
          lead(`b${i}`, i ? `${added[i - 1]!}.out` : 'm2.out', id === 'm' ? 'm.b' : `${id}.in`, 1),
        ),
      ],
    };
    const { cycles } = look(long);
    expect(cycles).toHaveLength(1);
    expect(cycles[0]!.fate).toBe('rests');
    expect(cycles[0]!.togetherDb).toBeCloseTo(cycles[0]!.gainDb, 4);
  }
});

test('what rests is never louder than its geometric sum, whatever effects stand in the way back', () => {
  let rested = 0;
  const kinds = ['delay', 'reverb', 'chorus', 'eq'];
  fc.assert(
    fc.property(
      fc.subarray(kinds, { minLength: 1, maxLength: 2 }),
      between(0, 10),
      between(0, 6),
      (kinds, mix, level) => {
        const rig = twoWays(level, 0);
        const effects = kinds.map((k) => device(k, k, k, { settings: k === 'eq' ? {} : { mix } }));
        const ends = [...kinds, 'm'];
        const round: Rig = {
          ...rig,
          devices: [...rig.devices, ...effects],
          leads: [
            ...rig.leads.filter((l) => l.id !== '8'),
            ...ends.map((id, i) =>
              lead(
                `e${i}`,
                i ? `${ends[i - 1]!}.out` : 'm2.out',
                id === 'm' ? 'm.b' : `${id}.in`,
                1,
              ),
            ),
          ],
          sounds: [sound('s1', 'One', ['v', ...kinds])],
        };
        const { cycles, report } = look(round);
        if (!cycles.length) return;
        const open = analyse({ ...round, leads: round.leads.filter((l) => l.to.jack !== 'b') });
        const at = (r: typeof report) => r.sounds[0]!.destinations[0]!.levelDbu!.soft;
        const more = at(report) - at(open);
        const isCounted = cycles.every((c) => c.fate === 'rests');
        if (isCounted) rested++;
        expect(more).toBeGreaterThan(-0.05);
        expect(more).toBeLessThan(
          isCounted ? 0.05 - decibels(1 - ratio(cycles[0]!.togetherDb)) : 0.05,
        );
      },
    ),
    { numRuns: 60, seed: 3 },
  );
  expect(rested).toBeGreaterThan(10);
});

test('a promise about levels is not kept where a circle has none, nor about loudness where one rests', () => {
  const promises: RigPromise[] = [
    { id: 'n', type: 'noise-under', destination: 'desk', db: -200 },
    { id: 'w', type: 'noise-under', destination: 'desk', db: -200, by: 'loudness' },
    { id: 'l', type: 'levels-within', destination: 'desk', db: 400 },
    { id: 't', type: 'levels-within', destination: 't', db: 400 },
    { id: 'h', type: 'hears', destination: 'desk', source: 'g' },
  ];
  const kept = (a: number, b: number) =>
    look(twoWays(a, b, promises)).report.promises.map((p) => [p.id, p.kept]);
  expect(kept(0, 0)).toEqual(promises.map((p) => [p.id, true]));
  expect(kept(6, 0)).toEqual([
    ['n', true],
    ['w', false],
    ['l', true],
    ['t', true],
    ['h', true],
  ]);
  expect(kept(6, 6)).toEqual([
    ['n', false],
    ['w', false],
    ['l', false],
    ['t', true],
    ['h', true],
  ]);
  const moves: RigPromise = {
    id: 'm',
    type: 'moves-only',
    device: 'v',
    setting: 'gain',
    destinations: ['desk'],
  };
  const [moved] = look(twoWays(6, 6, [moves])).report.promises;
  expect([moved!.kept, moved!.breaches[0]!.why]).toEqual([
    false,
    expect.stringMatching(/^The level at Desk cannot be told: /),
  ]);
  expect(look(twoWays(4, 0, [moves])).report.promises[0]!.kept).toBe(true);
  const [breach] = look(twoWays(6, 6, promises)).report.promises[0]!.breaches;
  expect(breach!.why).toBe(
    'The level at Desk cannot be told: signal can run in a circle through Fork, Second fork, Back, Second mix, Mix, ' +
      'and it has no level there.',
  );
});
