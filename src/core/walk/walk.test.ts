import { analyse } from '../report';
import { brokenRig, touringRig } from '../demo';
import { loopsThrough, orderNodes } from '../graph';
import { chainOf, device, lead, rigOf } from '../testing/rigs';
import { placeStations, stationsOf } from '.';

const placed = (rig: Parameters<typeof stationsOf>[0]) => {
  const walk = stationsOf(rig, rig.sounds[0]);
  return { ...walk, ...placeStations(walk.stations, walk.steps) };
};

test('a chain is one lane in the order of its leads', () => {
  const { stations, lanes, columns } = placed(
    chainOf(['guitar-single-coil', 'wah', 'drive-low', 'combo-tube']),
  );
  expect([...stations].sort((a, b) => a.column - b.column).map((s) => s.device)).toEqual([
    'd0',
    'd1',
    'd2',
    'd3',
  ]);
  expect([lanes, columns]).toEqual([1, 4]);
});

test('branches lie in lanes of their own from split to merge, and no two stations share a place', () => {
  for (const rig of [touringRig, brokenRig]) {
    const { stations, steps } = placed(rig);
    expect(new Set(stations.map((s) => `${s.lane}/${s.column}`)).size).toBe(stations.length);
    const at = new Map(stations.map((s) => [s.id, s]));
    for (const step of steps)
      if (!step.back) expect(at.get(step.to)!.column).toBeGreaterThan(at.get(step.from)!.column);
  }
  expect(placed(touringRig).stations.find((s) => s.device === 'bari')!.lane).toBe(0);
});

test('what is bypassed, muted, not in use or not selected is still on the walk', () => {
  const rig = rigOf(
    [
      device('g', 'guitar-active', 'G'),
      device('s', 'splitter-passive', 'S', { settings: { select: 'a' } }),
      device('t', 'tuner-true-bypass', 'T', { engaged: true }),
      device('a', 'combo-tube', 'A', { engaged: false }),
      device('b', 'combo-tube', 'B'),
    ],
    [
      lead('1', 'g.out', 's.in', 1),
      lead('2', 's.a', 't.in', 1),
      lead('3', 't.out', 'a.in', 1),
      lead('4', 's.b', 'b.in', 1),
    ],
  );
  const { stations, steps } = placed(rig);
  expect(Object.fromEntries(stations.map((s) => [s.device, s.state]))).toEqual({
    g: 'engaged',
    s: 'engaged',
    t: 'muted',
    a: 'unused',
    b: 'engaged',
  });
  expect(steps.find((s) => s.to === 'b')!.open).toBe(true);
  expect(analyse(rig).sounds[0]!.destinations.map((d) => d.levelDbu)).toEqual([null, null]);
});

test('a stereo pair of leads is one step', () => {
  expect(
    placed(touringRig).steps.find((s) => s.from === 'drift' && s.to === 'dome')!.leads,
  ).toEqual(['l23', 'l24']);
});

test('cycles are cut once and named', () => {
  const next = [[1], [2], [0, 3], []];
  const { order, isBack, back } = orderNodes(next);
  const loops = loopsThrough(back, next);
  expect(order).toHaveLength(4);
  expect(isBack(2, 0)).toBe(true);
  expect(loops.map((l) => [...l].sort())).toEqual([[0, 1, 2]]);
});
