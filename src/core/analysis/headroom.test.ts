import { sure } from '../outcome';
import { analyse } from '../report';
import type { Rig } from '../rig';
import { chainOf } from '../testing/rigs';
import { wired } from '../testing/wired';

type Kinds = Parameters<typeof chainOf>[0];
type Kind = Kinds[number];
const chain = (...kinds: Kinds): Rig =>
  chainOf(kinds.map((k) => (typeof k === 'string' ? [k, { engaged: true }] : k)));
const told = (rig: Rig) =>
  analyse(rig)
    .findings.filter((f) => f.rule === 'headroom')
    .map((f) => f.subjects[0]);
const station = (rig: Rig, device: string) =>
  sure(analyse(rig).sounds[0]?.stations.find((s) => s.device === device));
const hot: Kind = ['boost', { engaged: true, settings: { level: 10 } }];
const drive = (gain: number): Kind => ['drive-high', { engaged: true, settings: { gain } }];

test('a boost that clips into something linear is told', () => {
  const rig = chain('guitar-humbucker', 'treble-booster', hot, 'buffer', 'console-input');
  expect(station(rig, 'd2').headroomDb).toBeLessThan(0);
  expect(told(rig)).toContain('d2');
});

test('straight into a drive that clips far harder nobody hears how the boost clips', () => {
  const into = (gain: number) =>
    chain('guitar-humbucker', 'treble-booster', hot, drive(gain), 'head-tube');
  const rig = into(10);
  const [boost, next] = [station(rig, 'd2'), station(rig, 'd3')];
  const over = next.input!.peakDbu! + next.gainDb! - next.clipDbu!;
  expect(boost.headroomDb).toBeLessThan(0);
  expect(over).toBeGreaterThan(12 - boost.headroomDb!);
  expect(told(rig)).not.toContain('d2');
});

test('what is switched off between the two changes nothing, what is on and linear does', () => {
  const between = (engaged: boolean) =>
    chain(
      'guitar-humbucker',
      'treble-booster',
      hot,
      ['volume-active', { engaged }],
      drive(10),
      'head-tube',
    );
  expect(
    told(chain('guitar-humbucker', hot, ['chorus', { engaged: false }], drive(10), 'head-tube')),
  ).not.toContain('d1');
  expect(station(between(true), 'd2').headroomDb).toBeLessThan(0);
  expect(told(between(true))).toContain('d2');
});

test('one way on that is clean is enough to tell it', () => {
  const rig = chain('guitar-humbucker', 'treble-booster', hot, drive(10), 'head-tube');
  const forked: Rig = {
    ...rig,
    devices: [
      ...rig.devices,
      { id: 'f', kind: 'splitter-buffered', name: 'Fork', settings: { select: 'both' } },
      { id: 'c', kind: 'console-input', name: 'House' },
    ],
    leads: [
      ...rig.leads.filter((l) => l.to.device !== 'd3'),
      {
        id: 'x',
        type: 'instrument',
        metres: 1,
        from: { device: 'd2', jack: 'out' },
        to: { device: 'f', jack: 'in' },
      },
      {
        id: 'y',
        type: 'instrument',
        metres: 1,
        from: { device: 'f', jack: 'a' },
        to: { device: 'd3', jack: 'in' },
      },
      {
        id: 'z',
        type: 'instrument',
        metres: 1,
        from: { device: 'f', jack: 'b' },
        to: { device: 'c', jack: 'in' },
      },
    ],
  };
  expect(told(forked)).toContain('d2');
});

test('of what sums several the loudest input is named with its level, whichever is the first', () => {
  const rig = wired(
    {
      g: 'guitar-humbucker',
      s: 'amp-cab-simulator',
      k: 'mix-feed',
      m: 'mixer-line',
      e: ['in-ear-mix', { settings: { input: 'line' } }],
    },
    's.out>m.a k.out>m.b m.out>e.in g.out>s.in',
    { One: 's k' },
  );
  const { findings, sounds } = analyse(rig);
  const told = findings.find((f) => f.rule === 'headroom' && f.subjects[0] === 'm');
  const feed = sounds[0]?.stations.find((x) => x.device === 'k')?.output.peakDbu ?? 0;
  const guitar = sounds[0]?.stations.find((x) => x.device === 's')?.output.peakDbu ?? 0;
  expect(feed - guitar).toBeGreaterThan(20);
  expect(told?.why).toContain(`Peaks reach ${feed.toFixed(1)} dBu at its input`);
});
