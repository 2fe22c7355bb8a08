import { touringRig } from '../demo';
import { applyEdits, type Edit, mergeRigs, type Rig } from '../rig';
import { valueOf } from '../testing/value-of';
import { clashWords } from '.';

const after = (...edits: Edit[]): Rig => valueOf(applyEdits(touringRig, edits)).rig;
const words = (mine: Rig, theirs: Rig) =>
  mergeRigs(touringRig, mine, theirs).clashes.map((c) => clashWords(mine, theirs, c, touringRig));

test('a clash is told with the thing by name, its field, and both values', () => {
  const drive = (value: number): Edit => ({
    edit: 'setSetting',
    device: 'kiln',
    sound: 'lead',
    setting: 'drive',
    value,
  });
  expect(
    words(
      after({ edit: 'setDevice', device: 'kiln', name: 'Red' }, drive(9)),
      after({ edit: 'setDevice', device: 'kiln', name: 'Blue' }, drive(2)),
    ),
  ).toEqual([
    { what: 'Kiln Drive, name', mine: 'Red', theirs: 'Blue' },
    { what: 'Lead, Kiln Drive, Drive', mine: '9', theirs: '2' },
  ]);
});

test('what one side removed and two leads in one jack are told as what they are', () => {
  const [gone] = words(
    after({ edit: 'removeDevice', device: 'kiln' }),
    after({ edit: 'setDevice', device: 'kiln', notes: 'keep' }),
  );
  expect(gone).toEqual({
    what: 'Kiln Drive',
    mine: 'not there',
    theirs: 'Kiln Drive, as it is there',
  });
  const into = (id: string, device: string): Edit => ({
    edit: 'connect',
    lead: {
      id,
      type: 'balanced',
      metres: 3,
      from: { device, jack: 'outR' },
      to: { device: 'ears', jack: 'inR' },
    },
  });
  const [lead] = words(after(into('mine', 'sim')), after(into('theirs', 'echo')));
  expect(lead?.what).toMatch(/^a lead from .+ to Iseult’s in-ears/);
  expect([lead?.theirs, lead?.why]).toEqual([
    'not there',
    expect.stringContaining('a jack takes one lead') as string,
  ]);
});
