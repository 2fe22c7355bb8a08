import { applyEdits } from '../rig';
import { chainOf } from '../testing/rigs';
import { fixes, isWorse, SEVERITIES } from './finding';
import { insertFix } from './insert-fix';

test('a severity is worse than those that stand after it, and than no other', () => {
  SEVERITIES.forEach((a, i) => SEVERITIES.forEach((b, k) => expect(isWorse(a, b)).toBe(i < k)));
});

test('of several fixes the first is offered, the rest are others; none and one say no more than they are', () => {
  const fix = (words: string) => ({ words, edits: [] });
  expect(fixes([])).toEqual({});
  expect(fixes([fix('a')])).toEqual({ fix: fix('a') });
  expect(fixes([fix('a'), fix('b'), fix('c')])).toEqual({
    fix: fix('a'),
    others: [fix('b'), fix('c')],
  });
});

test.each([
  ['boost', true],
  ['buffer', undefined],
  ['drive-low', true],
] as const)('a %s that cures is switched on, unless it always is', (kind, engaged) => {
  const rig = chainOf(['guitar-active', 'console-input']);
  const lead = rig.leads[0]!.id;
  const fix = insertFix(rig, kind, 'New', lead, 'Put one in', {});
  const [edit] = fix.edits;
  expect(edit).toMatchObject({ edit: 'insertInLead', device: { kind, name: 'New' } });
  expect(edit?.edit === 'insertInLead' && edit.device.engaged).toBe(engaged);
  const done = applyEdits(rig, fix.edits);
  expect(done.ok && done.value.rig.devices.some((d) => d.kind === kind)).toBe(true);
});
