import fc from 'fast-check';
import { touringRig } from '../demo';
import { compareRigs } from '../changes';
import { applyEdits, type Edit, mergeRigs, type Rig, sameJson } from '.';

const base = touringRig;
const after = (...edits: Edit[]): Rig => {
  const r = applyEdits(base, edits);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  return r.value.rig;
};

test('changes to different things are both kept', () => {
  const mine = after(
    { edit: 'setSetting', device: 'kiln', sound: 'lead', setting: 'drive', value: 9 },
    { edit: 'copySound', sound: 'edge', id: 'edge-2', name: 'Edge two' },
  );
  const theirs = after(
    { edit: 'setDevice', device: 'kiln', notes: 'new tubes' },
    { edit: 'removeDevice', device: 'sub' },
  );
  const merge = mergeRigs(base, mine, theirs);
  expect(merge.merged).toBe(true);
  if (!merge.merged) return;
  expect(compareRigs(theirs, merge.rig)).toEqual([
    'added the sound Edge two',
    "Kiln Drive, Drive at 4 o'clock in Lead",
  ]);
  expect(merge.rig.sounds.map((s) => s.id).slice(0, 3)).toEqual(['flat', 'edge', 'edge-2']);
});

test('the same value changed differently is a conflict with both sides', () => {
  const merge = mergeRigs(
    base,
    after({ edit: 'renameRig', name: 'Mine' }),
    after({ edit: 'renameRig', name: 'Theirs' }),
  );
  expect(merge).toEqual({
    merged: false,
    problems: [],
    conflicts: [{ where: 'name', base: base.name, mine: 'Mine', theirs: 'Theirs' }],
  });
});

test('a device removed here and changed there is a conflict', () => {
  const merge = mergeRigs(
    base,
    after({ edit: 'removeDevice', device: 'kiln' }),
    after({ edit: 'setDevice', device: 'kiln', notes: 'keep' }),
  );
  expect(
    !merge.merged &&
      merge.conflicts.some((c) => c.where === 'devices[kiln]' && c.mine === undefined),
  ).toBe(true);
});

test('two leads put into one jack from two sides do not merge into a broken rig', () => {
  const at = (id: string, device: string): Edit => ({
    edit: 'connect',
    lead: {
      id,
      from: { device, jack: 'outR' },
      to: { device: 'ears', jack: 'inR' },
      type: 'balanced',
      metres: 3,
    },
  });
  const merge = mergeRigs(base, after(at('mine', 'sim')), after(at('theirs', 'echo')));
  expect(!merge.merged && merge.problems[0]!.what).toContain('a jack takes one lead');
});

test('merging with what did not change gives the other side, either way round', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 10 }),
      fc.constantFrom('brine', 'kiln'),
      (value, device) => {
        const changed = after({ edit: 'setSetting', device, setting: 'drive', value });
        return [
          mergeRigs(base, changed, base),
          mergeRigs(base, base, changed),
          mergeRigs(base, changed, changed),
        ].every((m) => m.merged && sameJson(m.rig, changed));
      },
    ),
  );
});
