import fc from 'fast-check';
import { touringRig } from '../demo';
import { compareRigs } from '../changes';
import { applyEdits, checkRig, type Edit, mergeRigs, type Rig, sameJson } from '.';

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
  expect(merge.clashes).toEqual([]);
  expect(compareRigs(theirs, merge.rig)).toEqual([
    'added the sound Edge two',
    "Kiln Drive, Drive at 4 o'clock in Lead",
  ]);
  expect(merge.rig.sounds.map((s) => s.id).slice(0, 3)).toEqual(['flat', 'edge', 'edge-2']);
});

test('the same value changed differently is a clash with both sides; the chosen one holds there alone', () => {
  const kiln: Edit = { edit: 'setDevice', device: 'kiln', notes: 'mine' };
  const sides = [
    after({ edit: 'renameRig', name: 'Mine' }, kiln),
    after({ edit: 'renameRig', name: 'Theirs' }, { edit: 'removeDevice', device: 'sub' }),
  ] as const;
  for (const side of ['mine', 'theirs', undefined] as const) {
    const merge = mergeRigs(base, ...sides, () => side);
    expect(merge.clashes).toEqual([
      { where: 'name', base: base.name, mine: 'Mine', theirs: 'Theirs' },
    ]);
    expect(merge.rig.name).toBe(side === 'mine' ? 'Mine' : 'Theirs');
    expect(merge.rig.devices.find((d) => d.id === 'kiln')?.notes).toBe('mine');
    expect(merge.rig.devices.some((d) => d.id === 'sub')).toBe(false);
  }
});

test('a device removed here and changed there is a clash; either outcome is a whole rig', () => {
  const mine = after({ edit: 'removeDevice', device: 'kiln' });
  const theirs = after({ edit: 'setDevice', device: 'kiln', notes: 'keep' });
  for (const side of ['mine', 'theirs'] as const) {
    const merge = mergeRigs(base, mine, theirs, () => side);
    expect(merge.clashes.map((c) => [c.where, c.mine === undefined])).toContainEqual([
      'devices[kiln]',
      true,
    ]);
    expect(merge.rig.devices.some((d) => d.id === 'kiln')).toBe(side === 'theirs');
    expect(checkRig(merge.rig).ok).toBe(true);
  }
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
  const notes: Edit = { edit: 'setDevice', device: 'kiln', notes: 'mine' };
  const sides = [after(at('mine', 'sim'), notes), after(at('theirs', 'echo'))] as const;
  const merge = mergeRigs(base, ...sides);
  expect(merge.clashes).toMatchObject([
    { where: 'leads[mine]', why: expect.stringContaining('a jack takes one lead') as string },
  ]);
  const leadsOf = (rig: Rig) => rig.leads.map((l) => l.id).filter((id) => /mine|theirs/.test(id));
  expect(leadsOf(merge.rig)).toEqual(['theirs']);
  const chosen = mergeRigs(base, ...sides, (where) =>
    where === 'leads[mine]' ? 'mine' : undefined,
  );
  expect(leadsOf(chosen.rig)).toEqual(['mine']);
  for (const { rig } of [merge, chosen])
    expect(rig.devices.find((d) => d.id === 'kiln')?.notes).toBe('mine');
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
        ].every((m) => !m.clashes.length && sameJson(m.rig, changed));
      },
    ),
  );
});
