import fc from 'fast-check';
import { brokenRig, hybridRig, touringRig } from '../demo';
import type { Rig } from '../rig';
import { device, lead, rigOf } from '../testing/rigs';
import { groundLoops, groundTies, type HumLoop } from './ground';
import type { Tie } from './ground-cures';

/** How many of the loops are independent: the rank of their ties, each tie in or out. */
function rank(loops: readonly HumLoop[]): number {
  const name = (t: Tie) => `${t.a} ${t.b} ${t.kind} ${t.lead ?? t.device}`;
  const rows = loops.map((l) => new Set(l.ties.map(name)));
  let count = 0;
  while (rows.length) {
    const pivot = rows.pop()!;
    const [tie] = pivot;
    if (tie === undefined) continue;
    count++;
    for (const row of rows) if (row.has(tie)) for (const t of pivot) if (!row.delete(t)) row.add(t);
  }
  return count;
}
const isClosed = (l: HumLoop): boolean => {
  const met = new Map<string, number>();
  for (const t of l.ties) for (const n of [t.a, t.b]) met.set(n, (met.get(n) ?? 0) + 1);
  return [...met.values()].every((n) => n === 2) && met.size === l.ties.length;
};

test('loops are closed, none is the sum of others, and a protective earth is never what is opened', () => {
  for (const rig of [touringRig, brokenRig, hybridRig]) {
    for (const sound of rig.sounds) {
      const loops = groundLoops(rig, sound);
      expect(loops.every(isClosed)).toBe(true);
      expect(rank(loops)).toBe(loops.length);
      for (const l of loops) expect(l.cure).not.toMatch(/earth/);
    }
  }
});

test('the same loops however the file lists devices and leads', () => {
  const members = (rig: Rig) =>
    groundLoops(rig, rig.sounds[0])
      .map((l) => [...l.devices].sort().join('+'))
      .sort();
  fc.assert(
    fc.property(
      fc.constantFrom(touringRig, brokenRig, hybridRig),
      fc.infiniteStream(fc.nat()),
      (rig, numbers) => {
        const shuffled = <T>(list: readonly T[]): T[] =>
          list
            .map((x) => ({ x, at: numbers.next().value! }))
            .sort((a, b) => a.at - b.at)
            .map(({ x }) => x);
        return (
          members({ ...rig, devices: shuffled(rig.devices), leads: shuffled(rig.leads) }).join() ===
          members(rig).join()
        );
      },
    ),
    { numRuns: 25 },
  );
});

test('the short way round is told: a split and its sum inside a longer split and sum', () => {
  const chain = ['a', 'b', 'c', 'd', 'e'].map((id) => device(id, 'drive-low', id.toUpperCase()));
  const rig = rigOf(
    [
      device('s1', 'splitter-passive', 'S1'),
      device('s2', 'splitter-passive', 'S2'),
      ...chain,
      device('x', 'boost', 'X'),
      device('y', 'boost', 'Y'),
      device('m1', 'mixer-line', 'M1'),
      device('m2', 'mixer-line', 'M2'),
    ],
    [
      lead('1', 's1.a', 'a.in', 1),
      ...['a', 'b', 'c', 'd'].map((id, i) => lead(`c${i}`, `${id}.out`, `${'bcde'[i]!}.in`, 1)),
      lead('2', 'e.out', 'm2.b', 1),
      lead('3', 's1.b', 's2.in', 1),
      lead('4', 's2.a', 'x.in', 1),
      lead('5', 's2.b', 'y.in', 1),
      lead('6', 'x.out', 'm1.a', 1),
      lead('7', 'y.out', 'm1.b', 1),
      lead('8', 'm1.out', 'm2.a', 1),
    ],
  );
  const loops = groundLoops(rig, rig.sounds[0]);
  expect(loops.map((l) => l.devices.length).sort((a, b) => a - b)).toEqual([4, 10]);
  expect(loops.find((l) => l.devices.length === 4)!.devices.sort()).toEqual(['m1', 's2', 'x', 'y']);
  expect(loops).toHaveLength(groundTies(rig, rig.sounds[0]).length - rig.devices.length + 1);
});
