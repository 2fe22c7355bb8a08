import { analyse } from '../report';
import type { Loop, Pass } from '../kinds';
import { device, lead, rigOf, sound } from '../testing/rigs';
import { stationsOf } from '.';
import { tripsOf } from './trips';

const wire = (a: string, b: string): Pass => ({ is: 'wire', a, b });
const loop = (n: number): Loop => ({
  id: `${n}`,
  label: `loop ${n}`,
  send: [`s${n}`],
  return: [`r${n}`],
  opensAt: 'never',
});

test('no loop: one trip; a loop: out and back; two one after the other: three trips', () => {
  expect(tripsOf({ ins: ['in'], outs: ['out'], passes: [wire('in', 'out')] }, [])).toEqual([
    { ins: ['in'], outs: ['out'], feeds: [], wouldFeed: [] },
  ]);
  const two = tripsOf(
    {
      ins: ['in', 'r1', 'r2'],
      outs: ['s1', 's2', 'out'],
      passes: [wire('in', 's1'), wire('r1', 's2'), wire('r2', 'out')],
    },
    [loop(1), loop(2)],
  );
  expect(two.map((t) => [t.ins, t.outs])).toEqual([
    [['in'], ['s1']],
    [['r1'], ['s2']],
    [['r2'], ['out']],
  ]);
});

test('loops side by side come back on one trip; a dry way beside a loop feeds the trip that comes back', () => {
  const parallel = tripsOf(
    {
      ins: ['in', 'r1', 'r2'],
      outs: ['s1', 's2', 'out'],
      passes: [wire('in', 's1'), wire('in', 's2'), wire('r1', 'out'), wire('r2', 'out')],
    },
    [loop(1), loop(2)],
  );
  expect(parallel.map((t) => [t.ins, t.outs])).toEqual([
    [['in'], ['s1', 's2']],
    [['r1', 'r2'], ['out']],
  ]);
  const dry = tripsOf(
    {
      ins: ['in', 'r1'],
      outs: ['s1', 'out'],
      passes: [wire('in', 's1'), wire('in', 'out'), wire('r1', 'out')],
    },
    [loop(1)],
  );
  expect(dry.map((t) => [t.ins, t.outs, t.feeds])).toEqual([
    [['in'], ['s1'], [1]],
    [['r1'], ['out'], []],
  ]);
});

test('every jack but a return that leads nowhere is on one trip and no more, whatever the order of the loops', () => {
  for (const order of [
    [1, 2, 3],
    [3, 1, 2],
    [2, 3, 1],
  ]) {
    const passes = order.map((n, i) => wire(i === 0 ? 'in' : `r${order[i - 1]!}`, `s${n}`));
    passes.push(wire(`r${order.at(-1)!}`, 'out'));
    const trips = tripsOf(
      { ins: ['in', 'r1', 'r2', 'r3'], outs: ['s1', 's2', 's3', 'out'], passes },
      [1, 2, 3].map(loop),
    );
    expect(trips.map((t) => t.outs[0])).toEqual([...order.map((n) => `s${n}`), 'out']);
    expect(trips.flatMap((t) => [...t.ins, ...t.outs]).sort()).toEqual([
      'in',
      'out',
      'r1',
      'r2',
      'r3',
      's1',
      's2',
      's3',
    ]);
  }
});

test('the walk passes an amplifier with a parallel loop twice, a fixed switcher once a loop in use', () => {
  const amp = rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('h', 'head-tube', 'H', { settings: { loopMode: 'parallel' } }),
      device('d', 'delay', 'D'),
      device('c', 'cabinet', 'C'),
    ],
    [
      lead('1', 'g.out', 'h.in', 1),
      lead('2', 'h.send', 'd.in', 1),
      lead('3', 'd.out', 'h.return', 1),
      lead('4', 'h.speaker', 'c.in', 1, 'speaker'),
    ],
  );
  expect(
    stationsOf(amp, amp.sounds[0])
      .stations.filter((s) => s.device === 'h')
      .map((s) => s.outs),
  ).toEqual([['send'], ['speaker']]);
  const sounds = [
    sound('none', 'None', [], { s: { settings: { loop1: false, loop2: false } } }),
    sound('both', 'Both', [], { s: { settings: { loop1: true, loop2: true } } }),
  ];
  const switcher = rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('s', 'loop-switcher-fixed', 'S'),
      device('a', 'drive-low', 'A'),
      device('b', 'drive-mid', 'B'),
      device('c', 'combo-tube', 'C'),
    ],
    [
      lead('1', 'g.out', 's.in', 1),
      lead('2', 's.send1', 'a.in', 1),
      lead('3', 'a.out', 's.return1', 1),
      lead('4', 's.send2', 'b.in', 1),
      lead('5', 'b.out', 's.return2', 1),
      lead('6', 's.out', 'c.in', 1),
    ],
    sounds,
  );
  const passes = sounds.map((x) =>
    stationsOf(switcher, x)
      .stations.filter((s) => s.device === 's' && s.outs.includes('out'))
      .map((s) => s.ins),
  );
  expect(passes).toEqual([[['in']], [['return2']]]);
});

test('an input that another takes priority over stays on the walk, joined by a way that is not made', () => {
  const rig = (panel: boolean) =>
    rigOf(
      [
        device('g', 'guitar-active', 'G'),
        device('w', 'wireless', 'Radio'),
        device('spare', 'guitar-active', 'Spare'),
        device('s', 'loop-switcher', 'S'),
        device('d', 'drive-low', 'D'),
        device('c', 'combo-tube', 'C'),
      ],
      [
        lead('1', 'g.out', 'w.in', 3),
        lead('2', 'w.out', 's.in', 1),
        ...(panel ? [lead('p', 'spare.out', 's.panel', 5)] : []),
        lead('3', 's.send1', 'd.in', 1),
        lead('4', 'd.out', 's.return1', 1),
        lead('5', 's.out', 'c.in', 3),
      ],
      [sound('a', 'A', ['d'], { s: { settings: { order: '1' } } })],
    );
  const steps = stationsOf(rig(true), rig(true).sounds[0]).steps;
  expect(steps.filter((x) => x.open).map((x) => [x.from, x.to])).toEqual([['s:in', 's:return1']]);
  expect(stationsOf(rig(false), rig(false).sounds[0]).steps.some((x) => x.open)).toBe(false);
  const report = analyse(rig(true));
  expect(report.sounds[0]!.destinations[0]!.sources).toEqual(['spare']);
  expect(report.findings.map((f) => f.rule)).not.toContain('dead-end');
});
