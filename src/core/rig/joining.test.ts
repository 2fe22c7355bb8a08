import { chainOf } from '../testing/rigs';
import { touringRig } from '../demo';
import {
  applyEdit,
  applyEdits,
  freeJacks,
  integrityProblems,
  joiningLead,
  jointsOf,
  leadsOfJoint,
  placeOf,
} from '.';

const endOf = (jacks: ReturnType<typeof freeJacks>, n: number) =>
  jacks.flatMap(({ device, jacks: list }) => list.map((j) => ({ device: device.id, jack: j.id })))[
    n
  ]!;

test('only jacks that hold nothing are offered, and only in the place of the other end', () => {
  const rig = chainOf(['guitar-active', 'boost', 'console-input'], 0.5);
  expect(freeJacks(rig, 'out', null)).toEqual([]);
  const open = { ...rig, leads: rig.leads.slice(1) };
  expect(freeJacks(open, 'out', null).map((d) => d.device.id)).toEqual(['d0']);
  expect(freeJacks(open, 'in', '').map((d) => d.device.id)).toEqual(['d1']);
  expect(freeJacks(open, 'in', 'a host that is not there')).toEqual([]);
});

test('any two free jacks of one place are joined by a lead that the rig accepts', () => {
  const rig = { ...touringRig, leads: touringRig.leads.filter((_, i) => i % 3 !== 0) };
  const outs = freeJacks(rig, 'out', null);
  const count = outs.reduce((n, d) => n + d.jacks.length, 0);
  expect(count).toBeGreaterThan(20);
  let joined = 0;
  for (let n = 0; n < count; n++) {
    const from = endOf(outs, n);
    const ins = freeJacks(rig, 'in', placeOf(rig, from));
    const to = endOf(ins, n % ins.reduce((m, d) => m + d.jacks.length, 0));
    const done = applyEdit(rig, { edit: 'connect', lead: joiningLead(rig, from, to) });
    if (!done.ok) continue;
    joined++;
    expect(integrityProblems(done.value.rig)).toEqual([]);
    expect(done.value.rig.leads.at(-1)!.metres === 0).toBe(placeOf(rig, from) !== '');
  }
  expect(joined).toBeGreaterThan(3);
});

test('the second branch of an insert lead takes the conductor that the first leaves', () => {
  const rig = chainOf(['guitar-active', 'console-input'], 0.5);
  const insert = {
    ...rig,
    devices: [
      ...rig.devices,
      { id: 'p', kind: 'insert-jack', name: 'Insert' },
      { id: 'c', kind: 'compressor', name: 'Compressor' },
    ],
    leads: [],
  };
  const jack = freeJacks(insert, 'out', null, (j) => j.insert !== undefined)[0];
  const at = { device: 'p', jack: jack!.jacks[0]!.id };
  const first = joiningLead(insert, at, { device: 'c', jack: 'in' });
  const one = applyEdit(insert, { edit: 'connect', lead: first });
  if (!one.ok) throw new Error(one.problems[0]!.what);
  const second = joiningLead(one.value.rig, { device: 'c', jack: 'out' }, at);
  expect([first.type, second.type]).toEqual(['insert', 'insert']);
  expect(second.conductor).toBe(first.conductor === 'ring' ? 'tip' : 'ring');
  expect(freeJacks(one.value.rig, 'in', '', (j) => j.insert !== undefined)).not.toEqual([]);
});

test('every joint that is offered fits, both sides at once where both ends are stereo', () => {
  const loose = chainOf(['guitar-active', 'delay', 'reverb', 'console-input-stereo']);
  const rig = { ...loose, leads: [] };
  let two = 0;
  for (const { id } of rig.devices)
    for (const joint of jointsOf(rig, id)) {
      expect([joint.from.device, joint.to.device]).toContain(id);
      const leads = leadsOfJoint(rig, joint);
      two += leads.length - 1;
      const done = applyEdits(
        rig,
        leads.map((lead) => ({ edit: 'connect', lead })),
      );
      expect([joint, done.ok]).toEqual([joint, true]);
      if (done.ok) expect(integrityProblems(done.value.rig)).toEqual([]);
    }
  expect(two).toBeGreaterThan(3);
});

test('a lead is as long as is usual between where its ends stand', () => {
  const rig = chainOf(['guitar-active', 'boost', 'wireless', 'console-input'], 0.5);
  const bare = { ...rig, leads: [] };
  const metres = (from: string, to: string) =>
    joiningLead(bare, { device: from, jack: 'out' }, { device: to, jack: 'in' }).metres;
  // From a hand to the floor, from a rack to the stage box: never half a metre.
  expect([metres('d0', 'd1'), metres('d2', 'd3')]).toEqual([6, 10]);
});
