import { EXAMPLE_SHEETS } from '../demo';
import { device, lead, rigOf } from '../testing/rigs';
import { valueOf } from '../testing/value-of';
import {
  applyEdits,
  integrityProblems,
  kindIdOf,
  kindOfSheet,
  type Rig,
  type Sheet,
  substitution,
} from '.';

const sheet = (id: string): Sheet => EXAMPLE_SHEETS.find((s) => s.id === id)!;
const [tandem, other] = [
  sheet('tandem-drive'),
  EXAMPLE_SHEETS.find((s) => s.id !== 'tandem-drive' && s.id !== 'two-shores')!,
];
const rig = (): Rig => ({
  ...rigOf(
    [
      device('g', 'guitar-humbucker', 'G'),
      device('one', kindOfSheet(tandem).id, 'One'),
      device('two', kindOfSheet(tandem).id, 'Two'),
      device('b', 'boost', 'B'),
    ],
    [lead('l', 'g.out', 'one.in', 1)],
  ),
  sheets: [tandem],
});

test('every device of a sheet becomes the other, under its own name, and everything else stays', () => {
  const made = valueOf(applyEdits(rig(), substitution(rig(), tandem.id, other))).rig;
  expect(integrityProblems(made)).toEqual([]);
  expect(made.devices.map((d) => [d.name, d.kind])).toEqual([
    ['G', 'guitar-humbucker'],
    ['One', kindIdOf(other)],
    ['Two', kindIdOf(other)],
    ['B', 'boost'],
  ]);
  expect(made.sheets!.map((s) => s.id)).toContain(other.id);
});

test('a rig without it is not touched; one that holds another sheet of that id keeps both', () => {
  expect(substitution(rig(), 'nothing', other)).toEqual([]);
  const mine: Sheet = { ...other, name: 'Mine, otherwise' };
  kindOfSheet(mine);
  const held: Rig = { ...rig(), sheets: [tandem, mine] };
  const made = valueOf(applyEdits(held, substitution(held, tandem.id, other))).rig;
  expect(made.sheets!.find((s) => s.id === other.id)!.name).toBe('Mine, otherwise');
  expect(made.sheets!.filter((s) => s.name === other.name)).toHaveLength(1);
  expect(integrityProblems(made)).toEqual([]);
});
