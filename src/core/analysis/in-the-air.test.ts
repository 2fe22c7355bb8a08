import { analyse } from '../report';
import { fixesOf } from '../report/tried';
import { applyEdits, type Device, type Rig } from '../rig';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { wired } from '../testing/wired';

/** One guitar into two amplifiers, with something in the way of the second. */
function two(
  change: { fork?: Partial<Device>; left?: Partial<Device>; right?: Partial<Device> } = {},
  inTheWay?: Device,
): Rig {
  return rigOf(
    [
      device('g', 'guitar-humbucker', 'Guitar'),
      device('s', 'splitter-isolated', 'Fork', { settings: { select: 'both' }, ...change.fork }),
      ...(inTheWay ? [inTheWay] : []),
      device('l', 'combo-tube', 'Left', change.left),
      device('r', 'combo-tube', 'Right', change.right),
    ],
    [
      lead('1', 'g.out', 's.in', 3),
      lead('2', 's.a', 'l.in', 3),
      ...(inTheWay
        ? [lead('3', 's.b', `${inTheWay.id}.in`, 1), lead('4', `${inTheWay.id}.out`, 'r.in', 3)]
        : [lead('3', 's.b', 'r.in', 3)]),
    ],
    [sound('x', 'X', [])],
  );
}
const ROOM = ['polarity', 'comb', 'uneven', 'parallel-dry'];
const told = (rig: Rig) => analyse(rig).findings.filter((f) => ROOM.includes(f.rule));
const rules = (rig: Rig) => told(rig).map((f) => `${f.rule} ${f.severity}`);
const cured = (rig: Rig): Rig => {
  const done = applyEdits(rig, fixesOf(told(rig)[0]!)[0]!.edits);
  if (!done.ok) throw new Error(done.problems[0]!.what);
  return done.value.rig;
};
const measured = (figure: string, value: number): Partial<Device> => ({
  figures: { [figure]: { value, from: 'measured', on: '2026-03-04' } },
});
const echo = (mix: number, more: Partial<Device> = {}) =>
  device('e', 'delay', 'Echo', { engaged: true, settings: { mix }, ...more });

describe('two amplifiers in one room', () => {
  test('that play the same together are a good pair', () => expect(told(two())).toEqual([]));
  test('turned against each other: a fault, and the splitter’s switch cures it', () => {
    const rig = two({ fork: { settings: { select: 'both', invertB: true } } });
    expect(rules(rig)).toEqual(['polarity fault']);
    expect(told(cured(rig))).toEqual([]);
  });
  test('an amplifier that turns polarity over is heard to, and the same two of them are not', () => {
    const rig = two({ right: measured('turnsOver', 1) });
    expect(rules(rig)).toEqual(['polarity fault']);
    expect(told(cured(rig))).toEqual([]);
    const both = measured('turnsOver', 1);
    expect(told(two({ left: both, right: both }))).toEqual([]);
  });
  test('one of them late by more than a metre of air: told with the metres and the notch', () => {
    const late = two({}, echo(0, measured('latencyMs', 5)));
    expect(rules(late)).toEqual(['comb caution']);
    const [f] = told(late);
    expect(f!.what).toBe('Right plays Guitar 5.0 ms after Left.');
    // 5 ms: 5 / 2.9 m of air, and 1 / (2 · 5 ms).
    expect(f!.why).toContain('1.7 m further');
    expect(f!.why).toMatch(/cancel at 100(\.0)? Hz/);
    expect(told(two({}, echo(0)))).toEqual([]);
  });
  test('of four, each later than the last, every late one is told once, however many play, against the first', () => {
    const late = (ms: number): [string, Partial<Device>] => [
      'delay',
      { engaged: true, settings: { mix: 0 }, ...measured('latencyMs', ms) },
    ];
    const fork: [string, Partial<Device>] = ['splitter-isolated', { settings: { select: 'both' } }];
    const combo = 'combo-tube';
    const rig = wired(
      {
        g: 'guitar-humbucker',
        k: 'guitar-active',
        mix: 'mixer-line',
        s: fork,
        t: fork,
        u: fork,
        e1: late(5),
        e2: late(10),
        e3: late(15),
        a: combo,
        b: combo,
        c: combo,
        d: combo,
      },
      'g.out>mix.a k.out>mix.b mix.out>s.in s.a>t.in s.b>u.in t.a>a.in t.b>e1.in e1.out>b.in ' +
        'u.a>e2.in e2.out>c.in u.b>e3.in e3.out>d.in',
      { x: 'e1 e2 e3' },
    );
    const words = told(rig).map((f) => f.what.replace(/ [GK] /, ' it '));
    expect(words.sort()).toEqual([
      'B plays it 5.0 ms after A.',
      'C plays it 10.0 ms after A.',
      'D plays it 15.0 ms after A.',
    ]);
  });
  test('masters 12 dB apart are told; 6 dB are a balance', () => {
    const master = (db: number) => ({ settings: { master: 5 - (10 * db) / 40 } });
    const far = two({ right: master(12) });
    expect(rules(far)).toEqual(['uneven advice']);
    expect(told(far)[0]!.what).toMatch(/^Right plays Guitar 1[12]\.\d dB under Left\.$/);
    expect(told(two({ right: master(6) }))).toEqual([]);
  });
  test('a wet amplifier that still carries dry: told, and set to the effect alone', () => {
    const rig = two({}, echo(8));
    expect(rules(rig)).toEqual(['parallel-dry advice']);
    expect(told(rig)[0]!.what).toBe('Right plays the effects, and still carries dry beside Left.');
    expect(told(cured(rig))).toEqual([]);
    expect(told(two({}, echo(10)))).toEqual([]);
    // A little echo in one of two amplifiers is a sound, and no wet amplifier.
    expect(told(two({}, echo(3)))).toEqual([]);
  });
  test('each side of a widened signal is no copy of the other', () => {
    const rig = rigOf(
      [
        device('g', 'guitar-humbucker', 'Guitar'),
        device('c', 'chorus', 'Chorus', { engaged: true }),
        device('l', 'combo-tube', 'Left'),
        device('r', 'combo-tube', 'Right', measured('turnsOver', 1)),
      ],
      [
        lead('1', 'g.out', 'c.in', 3),
        lead('2', 'c.out', 'l.in', 3),
        lead('3', 'c.outR', 'r.in', 3),
      ],
      [sound('x', 'X', ['c'])],
    );
    expect(rules(rig).filter((r) => !r.startsWith('polarity'))).toEqual([]);
  });
  test.each([
    ['turned', two({ fork: { settings: { select: 'both', invertB: true } } })],
    ['late', two({}, echo(0, measured('latencyMs', 5)))],
    ['uneven', two({ right: { settings: { master: 1 } } })],
    ['wet', two({}, echo(8))],
    ['alike', two()],
  ])('%s: which one is called left, and which stands first in the file, mean nothing', (_, rig) => {
    const other: Record<string, string> = { l: 'r', r: 'l' };
    const swap = (id: string) => other[id] ?? id;
    const mirrored: Rig = {
      ...rig,
      devices: rig.devices.map((d) => ({ ...d, id: swap(d.id) })).toReversed(),
      leads: rig.leads
        .map((l) => ({
          ...l,
          from: { ...l.from, device: swap(l.from.device) },
          to: { ...l.to, device: swap(l.to.device) },
        }))
        .toReversed(),
    };
    const said = (r: Rig, name: (id: string) => string) =>
      told(r).map((f) => ({ rule: f.rule, severity: f.severity, of: f.subjects.map(name).sort() }));
    expect(said(mirrored, swap)).toEqual(said(rig, (id) => id));
  });
});
