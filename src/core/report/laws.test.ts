import fc from 'fast-check';
import { chainOf, device, lead, rigOf } from '../testing/rigs';
import { analyse } from './report';

const level = (rig: ReturnType<typeof rigOf>, at: string): number =>
  analyse(rig).sounds[0]!.destinations.find((d) => d.device === at)!.levelDbu!.normal;
const destination = (rig: ReturnType<typeof rigOf>, at: string) =>
  analyse(rig).sounds[0]!.destinations.find((d) => d.device === at)!;

/** A buffered guitar split in two, both halves into a mixer and the desk; one half through something. */
const split = (
  through?: { kind: string; settings?: Record<string, number | string | boolean> },
  invert = false,
) =>
  rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('f', 'splitter-buffered', 'Fork', { settings: { select: 'both', invertB: invert } }),
      device('m', 'mixer-line', 'Mix'),
      device('desk', 'console-input', 'Desk', { settings: { input: 'line' } }),
      ...(through
        ? [device('x', through.kind, 'X', { engaged: true, settings: through.settings ?? {} })]
        : []),
    ],
    [
      lead('1', 'g.out', 'f.in', 1),
      lead('2', 'f.a', 'm.a', 1),
      ...(through
        ? [lead('3', 'f.b', 'x.in', 1), lead('4', 'x.out', 'm.b', 1)]
        : [lead('3', 'f.b', 'm.b', 1)]),
      lead('5', 'm.out', 'desk.in', 3),
    ],
  );
const half = () => ({ ...split(), leads: split().leads.filter((l) => l.id !== '3') });

test('two equal arrivals of one source, at once: 6.02 dB more than one', () =>
  expect(level(split(), 'desk') - level(half(), 'desk')).toBeCloseTo(6.02, 1));

test('turned in polarity they cancel, and that is a fault', () => {
  const report = analyse(split(undefined, true));
  const d = report.sounds[0]!.destinations.find((x) => x.device === 'desk')!;
  expect(d.levelDbu === null || d.levelDbu.normal < level(half(), 'desk') - 40).toBe(true);
  expect(report.findings.some((f) => f.rule === 'polarity' && f.severity === 'fault')).toBe(true);
});

test('the same, one of them late: powers add, and the first notch is at half the inverse of the delay', () => {
  const rig = split({ kind: 'delay', settings: { mix: 0 } });
  const d = destination(rig, 'desk');
  expect(d.notchHz).not.toBeNull();
  const late = analyse(rig).sounds[0]!.stations.find((s) => s.device === 'x')!.output.latencyMs!;
  expect(d.notchHz!).toBeCloseTo(1000 / (2 * late), 0);
  expect(d.levelDbu!.normal - level(half(), 'desk')).toBeCloseTo(3.01, 0);
});

test('the same, 100 % wet: no comb', () =>
  expect(destination(split({ kind: 'delay', settings: { mix: 10 } }), 'desk').notchHz).toBeNull());

test(
  'what is bypassed changes nothing but its own buffer: any number of buffered pedals ' +
    'that are off keep the level within a tenth of a decibel',
  () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), (n) => {
        const buffer: [string, { engaged: boolean }] = ['buffer', { engaged: true }];
        const bare = chainOf(['guitar-active', buffer, buffer, 'console-input']);
        const long = chainOf([
          'guitar-active',
          buffer,
          ...Array.from({ length: n }, () => 'delay'),
          buffer,
          'console-input',
        ]);
        const [a, b] = [bare, long].map(
          (r) => analyse(r).sounds[0]!.destinations[0]!.levelDbu!.normal,
        );
        return Math.abs(a! - b!) < 0.1;
      }),
      { numRuns: 8 },
    );
  },
);

test('more noise sources never make it quieter; signal-to-noise is level less noise', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom('buffer', 'eq', 'chorus', 'delay'), { maxLength: 6 }),
      (kinds) => {
        const rig = (list: string[]) =>
          chainOf([
            'guitar-active',
            ...list.map((k): [string, { engaged: boolean }] => [k, { engaged: true }]),
            'console-input',
          ]);
        const [short, long] = [rig(kinds), rig([...kinds, 'buffer'])].map(
          (r) => analyse(r).sounds[0]!.destinations[0]!,
        );
        expect(long!.noiseDbu!).toBeGreaterThanOrEqual(short!.noiseDbu! - 0.1);
        expect(short!.signalToNoiseDb!).toBeCloseTo(short!.levelDbu!.normal - short!.noiseDbu!, 6);
      },
    ),
    { numRuns: 15 },
  );
});

test('latency is the sum of the devices on the way, whatever their order', () => {
  const late = (kinds: string[]) =>
    analyse(
      chainOf([
        'guitar-active',
        ...kinds.map((k): [string, { engaged: boolean }] => [k, { engaged: true }]),
        'console-input',
      ]),
    ).sounds[0]!.destinations[0]!.latencyMs!;
  expect(late(['delay', 'buffer', 'reverb'])).toBeCloseTo(late(['delay']) + late(['reverb']), 9);
  expect(late(['reverb', 'delay', 'buffer'])).toBeCloseTo(late(['delay', 'buffer', 'reverb']), 9);
  expect(late(['drive-low', 'boost'])).toBe(0);
});

test('harder picking is louder, and never cleaner through a drive', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 10 }), (drive) => {
      const d = analyse(
        chainOf([
          'guitar-active',
          ['drive-mid', { engaged: true, settings: { drive } }],
          'console-input',
        ]),
      ).sounds[0]!.destinations[0]!;
      const { levelDbu, thdPercent } = d;
      expect(levelDbu!.soft).toBeLessThanOrEqual(levelDbu!.normal);
      expect(levelDbu!.normal).toBeLessThanOrEqual(levelDbu!.hard);
      expect(thdPercent!.soft).toBeLessThanOrEqual(thdPercent!.normal + 0.01);
      expect(thdPercent!.normal).toBeLessThanOrEqual(thdPercent!.hard + 0.01);
    }),
    { numRuns: 11 },
  );
});
