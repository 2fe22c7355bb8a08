import fc from 'fast-check';
import { flyRig } from '../demo';
import { applyEdit, applyEdits } from './apply';
import { copyWith } from './copies';
import { checkRig } from './read';
import type { Rig } from './schema';
import type { Edit } from './edits';
import { between } from '../testing/between';

const device = fc.constantFrom(...flyRig.devices.map((d) => d.id), 'nobody');
const lead = fc.constantFrom(...flyRig.leads);
/** Edits that are well alone, that are well in company only, and that are never well. */
const anyEdit: fc.Arbitrary<Edit> = fc.oneof(
  device.map((d): Edit => ({ edit: 'removeDevice', device: d })),
  lead.map((l): Edit => ({ edit: 'disconnect', lead: l.id })),
  lead.map((l): Edit => ({ edit: 'connect', lead: l })),
  fc.tuple(lead, lead).map(([a, b]): Edit => ({ edit: 'connect', lead: { ...a, to: b.to } })),
  fc.record({ device, engaged: fc.boolean() }).map((r): Edit => ({ edit: 'setEngaged', ...r })),
  fc
    .record({ lead, metres: between(-1, 600) })
    .map(({ lead: l, metres }): Edit => ({ edit: 'setLead', lead: l.id, metres })),
);

/** The same, each looked at as it is made. */
function oneByOne(edits: readonly Edit[]): Rig | string {
  let rig: Rig = flyRig;
  for (const edit of edits) {
    const made = applyEdit(rig, edit);
    if (!made.ok) return made.problems[0]?.what ?? '';
    rig = made.value.rig;
  }
  return rig;
}

test('several edits give what each alone gives; refused they give the same reason', () => {
  fc.assert(
    fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 5 }), (edits) => {
      const all = applyEdits(flyRig, edits);
      const each = oneByOne(edits);
      if (typeof each !== 'string') expect(all.ok && all.value.rig).toEqual(each);
      else if (!all.ok) expect(all.problems[0]?.what).toBe(each);
      // What is refused alone may be well in the end; then the door lets it in as any file.
      else expect(checkRig(structuredClone(all.value.rig)).ok).toBe(true);
    }),
    { numRuns: 200 },
  );
});

test('what lies between two edits is seen by nobody: two leads change places in either order', () => {
  const [a, b] = flyRig.leads.filter((l) => l.type === 'instrument');
  const to = (l: typeof a, end: typeof a): Edit => ({
    edit: 'connect',
    lead: { ...l!, to: end!.to },
  });
  const off = (l: typeof a): Edit => ({ edit: 'disconnect', lead: l!.id });
  for (const edits of [
    [off(a), to(a, b), off(b), to(b, a)],
    [off(b), to(b, a), off(a), to(a, b)],
  ]) {
    const made = applyEdits(flyRig, edits);
    expect(made.ok && made.value.rig.leads.find((l) => l.id === a!.id)?.to).toEqual(b!.to);
  }
});

test('the same edits give the same copy; those that cannot be made give none', () => {
  const edits: Edit[] = [{ edit: 'removeDevice', device: flyRig.devices[1]!.id }];
  expect(copyWith(flyRig, edits)).toBe(copyWith(flyRig, structuredClone(edits)));
  expect(copyWith(flyRig, edits)).toEqual(oneByOne(edits));
  expect(copyWith(flyRig, [{ edit: 'removeDevice', device: 'nobody' }])).toBeUndefined();
  // Many copies later it is made anew, and is the same.
  const first = copyWith(flyRig, edits);
  for (let i = 0; i < 40; i++)
    copyWith(flyRig, [{ edit: 'setLead', lead: flyRig.leads[0]!.id, metres: 1 + i / 10 }]);
  expect(copyWith(flyRig, edits)).not.toBe(first);
  expect(copyWith(flyRig, edits)).toEqual(first);
});
