import { hybridRig, touringRig } from '../../core/demo';
import { kindOf } from '../../core/kinds';
import { analyse } from '../../core/report';
import {
  applyEdits,
  deviceOf,
  integrityProblems,
  record,
  type Rig,
  startHistory,
  undo,
} from '../../core/rig';
import { chainOf, device, lead, rigOf } from '../../core/testing/rigs';
import { freeOutput } from './moving-edits';
import {
  appendEdits,
  aroundEdits,
  freshName,
  insertEdits,
  intoLoopEdits,
  outOfLoop,
  waysIn,
  waysOut,
} from './place-edits';

const after = (rig: Rig, edits: Parameters<typeof applyEdits>[1]): Rig => {
  const r = applyEdits(rig, edits);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  expect(integrityProblems(r.value.rig)).toEqual([]);
  return r.value.rig;
};

test('a second of a kind gets a number', () => {
  const rig = rigOf([device('a', 'boost', 'Boost'), device('b', 'boost', 'Boost 2')], []);
  expect(freshName(rig, 'Boost')).toBe('Boost 3');
  expect(freshName(rig, 'Delay')).toBe('Delay');
});

test('what is put into a lead is heard in the sound at hand, and bypassed in the others', () => {
  const rig = chainOf(
    ['guitar-active', 'combo-tube'],
    1,
    touringRig.sounds.slice(0, 2).map((s) => ({ ...s, states: {} })),
  );
  const [first, second] = rig.sounds.map((s) => s.id);
  const put = after(rig, insertEdits(rig, kindOf('drive-low'), 'l0', first));
  const id = put.devices.find((d) => d.kind === 'drive-low')!.id;
  expect(put.sounds.map((s) => [s.id, s.states[id]?.engaged ?? false])).toEqual([
    [first, true],
    [second, false],
  ]);
  expect(insertEdits(rig, kindOf('buffer'), 'l0', first)).toHaveLength(1);
});

test('the next device goes to the main output, then to one that is free, then nowhere', () => {
  const fork = device('s', 'splitter-buffered', 'S');
  const rig = rigOf(
    [
      device('g', 'guitar-active', 'G'),
      fork,
      device('a', 'combo-tube', 'A'),
      device('b', 'combo-tube', 'B'),
    ],
    [lead('1', 'g.out', 's.in', 1)],
  );
  expect(freeOutput(rig, fork)).toBe('a');
  const one = after(rig, [{ edit: 'connect', lead: lead('2', 's.a', 'a.in', 1) }]);
  expect(freeOutput(one, fork)).toBe('b');
  const two = after(one, [{ edit: 'connect', lead: lead('3', 's.b', 'b.in', 1) }]);
  expect(freeOutput(two, fork)).toBeUndefined();
  expect(after(one, appendEdits(one, kindOf('delay'), fork, undefined)).leads.at(-1)).toMatchObject(
    { from: { device: 's', jack: 'b' }, to: { jack: 'in' } },
  );
});

test('every way out of the modeler and every way into it can be gone, and undone', () => {
  let tried = 0;
  for (const d of hybridRig.devices) {
    for (const way of [...waysOut(hybridRig, d), ...waysIn(hybridRig, d)]) {
      const moved = after(hybridRig, [way.edit]);
      expect(deviceOf(moved, d.id)!.host).toBe(d.host === undefined ? 'lode' : undefined);
      expect(analyse(moved).sounds).toHaveLength(hybridRig.sounds.length);
      const done = applyEdits(hybridRig, [way.edit]);
      if (!done.ok) throw new Error(way.words);
      expect(undo(record(startHistory(hybridRig), done.value, way.words))?.history.rig).toEqual(
        hybridRig,
      );
      tried++;
    }
  }
  expect(tried).toBeGreaterThanOrEqual(3);
});

test(
  'what has no real form stays inside; what has no block form stays out; a host with ' +
    'every loop taken offers none',
  () => {
    const amp = hybridRig.devices.find((d) => d.kind === 'amp-block')!;
    expect(waysOut(hybridRig, amp)).toEqual([]);
    expect(
      waysIn(
        hybridRig,
        hybridRig.devices.find((d) => kindOf(d.kind).job === 'instrument')!,
      ),
    ).toEqual([]);
    for (const d of touringRig.devices.filter((x) => x.host === undefined))
      expect(waysOut(touringRig, d)).toEqual([]);
  },
);

test('what goes into a loop is heard in the sound at hand: its number stands in the order, once', () => {
  const sounds = touringRig.sounds.slice(0, 2).map((s) => ({ ...s, states: {} }));
  const rig = chainOf(['guitar-active', 'loop-switcher', 'combo-tube'], 1, sounds);
  const host = rig.devices[1]!;
  const [first] = sounds.map((s) => s.id);
  const order = (r: Rig, n: number) => r.sounds[n]!.states.d1?.settings?.order;
  const one = after(rig, intoLoopEdits(rig, kindOf('drive-low'), host, 'loop3', first));
  const two = after(one, intoLoopEdits(one, kindOf('delay'), host, 'loop1', first));
  const again = after(two, intoLoopEdits(two, kindOf('boost'), host, 'loop3', first));
  expect([one, two, again].map((r) => order(r, 0))).toEqual(['3', '3 1', '3 1']);
  expect(order(again, 1)).toBeUndefined();
});

test('out of a loop, in front or behind, and around what stands in front: each way holds', () => {
  const rig = chainOf(['guitar-active', 'boost', 'drive-mid', 'loop-switcher', 'combo-tube'], 1);
  const [, boost, drive, host] = rig.devices;
  const around = after(rig, aroundEdits(rig, [boost!, drive!], host!, 'loop2', undefined));
  expect(around.leads.filter((l) => l.to.device === 'd3' && l.to.jack === 'in')).toMatchObject([
    { from: { device: 'd0' } },
  ]);
  const ways = outOfLoop(
    around,
    around.devices.find((d) => d.id === 'd1')!,
  );
  expect(ways.map((w) => w.words)).toEqual([
    'Out of the loop, in front of Device 3',
    'Out of the loop, behind Device 3',
  ]);
  const [front, behind] = ways.map((w) => after(around, [w.edit]));
  expect(front!.leads.some((l) => l.from.device === 'd1' && l.to.device === 'd3')).toBe(true);
  expect(behind!.leads.some((l) => l.from.device === 'd1' && l.to.device === 'd4')).toBe(true);
  expect(outOfLoop(rig, boost!)).toEqual([]);
});
