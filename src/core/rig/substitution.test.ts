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
const OF = { is: 'sheet', id: tandem.id } as const;
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
  const made = valueOf(
    applyEdits(rig(), substitution(rig(), OF, { is: 'sheet', sheet: other })),
  ).rig;
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
  expect(
    substitution(rig(), { is: 'sheet', id: 'nothing' }, { is: 'sheet', sheet: other }),
  ).toEqual([]);
  const mine: Sheet = { ...other, name: 'Mine, otherwise' };
  kindOfSheet(mine);
  const held: Rig = { ...rig(), sheets: [tandem, mine] };
  const made = valueOf(applyEdits(held, substitution(held, OF, { is: 'sheet', sheet: other }))).rig;
  expect(made.sheets!.find((s) => s.id === other.id)!.name).toBe('Mine, otherwise');
  expect(made.sheets!.filter((s) => s.name === other.name)).toHaveLength(1);
  expect(integrityProblems(made)).toEqual([]);
});

test('a unit takes the place of a unit: its record comes, the sheet that says what it is, and nothing else moves', () => {
  const held: Rig = { ...rig() };
  held.devices = held.devices.map((d) =>
    d.id === 'one' ? { ...d, gear: { serial: 'T-1', owner: 'Odd', value: 90, owned: true } } : d,
  );
  const of = { is: 'unit', serial: 'T-1' } as const;
  const put = (sheet: Sheet | undefined) => {
    const unit = { serial: 'T-9', grams: 512, ...(sheet && { sheet }) };
    const edits = substitution(held, of, { is: 'unit', unit });
    return valueOf(applyEdits(held, edits)).rig.devices.map((d) => [d.name, d.kind, d.gear]);
  };
  const kind = kindIdOf(tandem);
  const record = { owned: true, serial: 'T-9', grams: 512 };
  // Of the same sheet, or of none that is known: only the record is another.
  for (const sheet of [tandem, undefined])
    expect(put(sheet)).toEqual([
      ['G', 'guitar-humbucker', undefined],
      ['One', kind, record],
      ['Two', kind, undefined],
      ['B', 'boost', undefined],
    ]);
  expect(put(other)[1]).toEqual(['One', kindIdOf(other), record]);
  // What stands there as another kind is not that unit any more.
  const shipped = substitution(held, of, { is: 'kind', kind: 'drive-mid' });
  expect(valueOf(applyEdits(held, shipped)).rig.devices[1]).toMatchObject({
    kind: 'drive-mid',
    name: 'One',
    gear: { owned: true },
  });
});
