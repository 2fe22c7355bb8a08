import fc from 'fast-check';
import { analyse } from '../report';
import { walkOrder } from '../walk';
import { kindOf } from '../kinds';
import { type Brief, integrityProblems, type Rig, rigSchema, type Way, WAYS } from '../rig';
import { brokenRig, touringRig } from '../demo';
import { briefOf, briefState, proposeRig, START_INSTRUMENTS, START_PEDALS } from '.';
import { cases } from '../testing/cases';

const lines = (kinds: readonly string[]) =>
  kinds.map((kind, i) => ({ id: `g${i}`, kind, name: kindOf(kind).name }));
const ways = (list: readonly Way[]) =>
  list.map((way, i) => ({
    id: `w${i}`,
    way,
    name: {
      head: 'Head',
      combo: 'Combo',
      stage: 'Wedge',
      house: 'House',
      'in-ears': 'In-ears',
      recorder: 'Recorder',
    }[way],
  }));
const brief = (rest: Partial<Brief> = {}): Brief => ({
  sources: [{ id: 's', kind: 'guitar-baritone', name: 'Baritone' }],
  destinations: ways(['head', 'house']),
  gear: lines([
    'reverb',
    'drive-high',
    'tuner-true-bypass',
    'delay',
    'drive-low',
    'compressor',
    'octave',
    'chorus',
  ]),
  sounds: ['Clean', 'Crunch', 'Lead'].map((name, i) => ({ id: `n${i}`, name })),
  ...rest,
});
const propose = (b: Brief, otherSchool: string[] = []): Rig =>
  proposeRig(b, { id: 'new', name: 'Fly rig', otherSchool }).rig;
const order = (b: Brief, other: string[] = []) => walkOrder(propose(b, other));

test('the usual order, time effects in the loop', () => {
  expect(order(brief())).toEqual([
    'baritone',
    'tuner-true-bypass',
    'octave',
    'compressor',
    'drive-low-gain',
    'drive-high-gain',
    'chorus',
    'head',
    'delay',
    'reverb',
    'cabinet',
    'house-mic',
    'house',
  ]);
});

test('the other school turns its rule round and is kept in the rig', () => {
  const other = ['compressor-early', 'time-after-dirt'];
  const found = order(brief(), other);
  expect(found.indexOf('compressor')).toBeGreaterThan(found.indexOf('drive-high-gain'));
  expect(found.indexOf('reverb')).toBeLessThan(found.indexOf('head'));
  expect(propose(brief(), other).order!.stances!['compressor-early']).toEqual({ stance: 'other' });
});

test('without an amplifier it goes wide from the first widening effect to a stereo pair', () => {
  const rig = propose(brief({ destinations: ways(['house']) }));
  const { sounds } = analyse(rig);
  expect(sounds.at(-1)!.destinations[0]!.channels).toBe('stereo');
  expect(walkOrder(rig)).toContain('amp-and-cab-simulator');
});

test('sounds go from clean to dirty', () => {
  const thd = analyse(propose(brief())).sounds.map((s) => s.destinations[0]!.thdPercent!.normal);
  expect(thd[0]).toBeLessThan(thd[1]!);
  expect(thd[1]).toBeLessThan(thd[2]!);
});

test(
  'whatever is asked for, the proposal is a sound rig in which every destination is ' +
    'reached and the order rules are kept',
  () => {
    const pedals = START_PEDALS.filter((k) =>
      [
        'tuner',
        'pitch',
        'filter',
        'compressor',
        'drive',
        'gate',
        'modulation',
        'delay',
        'reverb',
      ].includes(k.job),
    ).map((k) => k.id);
    const instruments = START_INSTRUMENTS.map((k) => k.id);
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(...pedals), { maxLength: 9 }),
        fc.uniqueArray(fc.constantFrom(...instruments), { minLength: 1, maxLength: 3 }),
        fc.uniqueArray(fc.constantFrom<Way>(...WAYS), { minLength: 1 }),
        fc.boolean(),
        (p, i, outputs, wireless) => {
          const rig = propose(
            brief({
              sources: i.map((kind, n) => ({
                id: `s${n}`,
                kind,
                name: kindOf(kind).name,
                wireless: wireless && n === 0,
              })),
              gear: lines(p),
              destinations: ways(outputs),
            }),
          );
          if (!rigSchema.safeParse(rig).success || integrityProblems(rig).length) return false;
          const { findings, promises } = analyse(rig);
          if (promises.some((x) => !x.kept)) return false;
          return !findings.some((f) =>
            [
              'no-route',
              'howl',
              'no-load',
              'pitch-early',
              'filter-before-dirt',
              'compressor-early',
              'gain-low-to-high',
              'gate-place',
              'modulation-after-dirt',
              'tuner-place',
            ].includes(f.rule),
          );
        },
      ),
      { numRuns: cases(20, 60) },
    );
  },
);

test('a character asks for its share of the drives', () => {
  const sounds = [
    { id: 'a', name: 'A', character: 'saturated' as const },
    { id: 'b', name: 'B', character: 'clean' as const },
    { id: 'c', name: 'C', character: 'edge' as const },
  ];
  const rig = propose(brief({ sounds }));
  const drives = rig.sounds.map(
    (s) => Object.keys(s.states).filter((d) => d.startsWith('drive')).length,
  );
  expect(drives).toEqual([2, 0, 1]);
});

test('what was made from a brief answers it line by line; what is taken out is asked for again', () => {
  const b = brief();
  const rig = propose(b);
  const state = briefState(rig, b);
  expect(
    Object.values(state)
      .flatMap((part) => Object.values(part))
      .every((x) => x !== undefined),
  ).toBe(true);
  const less: Rig = {
    ...rig,
    devices: rig.devices.filter((d) => d.kind !== 'octave'),
    sounds: rig.sounds.slice(1),
  };
  const then = briefState(less, b);
  expect(
    Object.entries(then.gear)
      .filter(([, v]) => v === undefined)
      .map(([id]) => b.gear.find((g) => g.id === id)!.kind),
  ).toEqual(['octave']);
  expect(then.sounds.n0).toBeUndefined();
});

test.each([touringRig, brokenRig])('a brief read from a rig is answered by that rig', (rig) => {
  const b = briefOf(rig);
  expect(rigSchema.safeParse({ ...rig, brief: b }).success).toBe(true);
  const state = briefState(rig, b);
  for (const part of Object.values(state))
    for (const found of Object.values(part as Record<string, string | undefined>))
      expect(found).toBeDefined();
});
