import fc from 'fast-check';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { analyse } from '../report/report';

const LOOPS = [1, 2, 3, 4, 5, 6];
const board = (orders: readonly string[], kinds: readonly string[] = LOOPS.map(() => 'boost')) =>
  rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('sw', 'loop-switcher', 'Switcher'),
      ...LOOPS.map((n, i) =>
        device(`p${n}`, kinds[i]!, `P${n}`, {
          engaged: true,
          settings: kinds[i] === 'boost' ? { gain: 0 } : {},
        }),
      ),
      device('desk', 'console-input', 'Desk', { settings: { input: 'line' } }),
    ],
    [
      lead('1', 'g.out', 'sw.in', 3),
      ...LOOPS.flatMap((n) => [
        lead(`s${n}`, `sw.send${n}`, `p${n}.in`, 0.5),
        lead(`r${n}`, `p${n}.out`, `sw.return${n}`, 0.5),
      ]),
      lead('o', 'sw.out', 'desk.in', 5),
    ],
    orders.map((order, i) => sound(`o${i}`, `Order ${i}`, [], { sw: { settings: { order } } })),
  );
const passed = (rig: ReturnType<typeof board>, i: number): string[] =>
  analyse(rig).sounds[i]!.destinations[0]!.route.filter((id) => id.startsWith('p'));

test('in every sound the signal passes just the loops in use, in the order written', () => {
  fc.assert(
    fc.property(fc.array(fc.shuffledSubarray(LOOPS), { minLength: 1, maxLength: 5 }), (orders) => {
      const rig = board(orders.map((o) => o.join(' ')));
      orders.forEach((order, i) => expect(passed(rig, i)).toEqual(order.map((n) => `p${n}`)));
    }),
    { numRuns: 15 },
  );
});

test('a loop at unity changes no level: any number of them, in any order, within half a decibel of none', () => {
  fc.assert(
    fc.property(fc.shuffledSubarray(LOOPS), (order) => {
      const report = analyse(board(['', order.join(' ')]));
      const [none, some] = report.sounds.map((s) => s.destinations[0]!.levelDbu!.normal);
      expect(Math.abs(none! - some!)).toBeLessThan(0.5);
    }),
    { numRuns: 15 },
  );
});

test('what is written as a loop level is what comes out, in decibels', () => {
  fc.assert(
    fc.property(fc.constantFrom(...LOOPS), fc.integer({ min: -20, max: 6 }), (n, db) => {
      const [plain, set] = analyse(board([`${n}`, `${n}@${db}`])).sounds.map(
        (s) => s.destinations[0]!.levelDbu!.normal,
      );
      expect(set! - plain!).toBeCloseTo(db, 1);
    }),
    { numRuns: 12 },
  );
});

test('two equal loops side by side are two equal arrivals: 6.02 dB over one of them', () => {
  const [one, both] = analyse(board(['3', '(3+4)'])).sounds.map(
    (s) => s.destinations[0]!.levelDbu!.normal,
  );
  expect(both! - one!).toBeCloseTo(6.02, 1);
});

test('side by side with a late one there is a comb, and it is told; one behind the other there is none', () => {
  const kinds = ['boost', 'boost', 'boost', 'delay', 'boost', 'boost'];
  const report = analyse(board(['3 4', '(3+4)'], kinds));
  expect(report.sounds.map((s) => s.destinations[0]!.notchHz === null)).toEqual([true, false]);
  const told = report.findings.filter((f) => f.rule === 'parallel-dry');
  expect(told.map((f) => f.sounds)).toEqual([['o1']]);
  expect(told[0]!.why).toContain('1.50 ms apart, so they cancel at 333 Hz');
  expect(report.sounds[1]!.destinations[0]!.notchHz!).toBeCloseTo(333.3, 0);
});

test(
  'drives keep their gain order as the order of loops says: low into high saturates ' +
    'otherwise than high into low',
  () => {
    const kinds = ['drive-low', 'drive-high', 'boost', 'boost', 'boost', 'boost'];
    const [low, high] = analyse(board(['1 2', '2 1'], kinds)).sounds.map((s) => s.destinations[0]!);
    expect(low!.noiseDbu).not.toBeCloseTo(high!.noiseDbu!, 1);
    expect(
      analyse(board(['1 2', '2 1'], kinds))
        .findings.filter((f) => f.rule === 'gain-low-to-high')
        .map((f) => f.sounds),
    ).toEqual([['o1']]);
  },
);
