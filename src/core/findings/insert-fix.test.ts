import { applyEdits } from '../rig';
import { chainOf, device, lead, rigOf } from '../testing/rigs';
import { insertFix, moveFix } from './insert-fix';

test('a new device goes between, with ids that nothing else has', () => {
  const rig = chainOf(['guitar-active', 'buffer', 'console-input']);
  const taken = {
    ...rig,
    devices: [...rig.devices, device('buffer', 'buffer', 'Buffer')],
    leads: rig.leads.map((l, i) => ({ ...l, id: ['buffer-2-lead', 'buffer-2-lead-2'][i] ?? l.id })),
  };
  const fix = insertFix(taken, 'buffer', 'Buffer', 'buffer-2-lead', 'Put one in');
  expect(fix).toEqual({
    words: 'Put one in',
    edits: [
      {
        edit: 'insertInLead',
        lead: 'buffer-2-lead',
        device: { id: 'buffer-2', kind: 'buffer', name: 'Buffer' },
        newLeads: ['buffer-2-lead-3', 'buffer-2-lead-2-2'],
      },
    ],
  });
  expect(applyEdits(taken, fix.edits).ok).toBe(true);
});

test('the ids of the two leads are never one, whatever is taken', () => {
  const rig = rigOf(
    [
      device('a', 'guitar-active', 'A'),
      device('b', 'console-input', 'B'),
      device('c', 'boost', 'C'),
    ],
    [lead('x', 'a.out', 'b.in', 1)],
  );
  const fix = moveFix(rig, 'c', 'x', 'Move it');
  expect(fix.edits).toEqual([
    { edit: 'moveDevice', device: 'c', lead: 'x', newLeads: ['c-lead', 'c-lead-2'] },
  ]);
});
