import fc from 'fast-check';
import { EXAMPLE_SHEETS } from '../demo';
import { KINDS } from '../kinds';
import { type ChangedKind, checkSheet, type Sheet } from '../rig';
import { sheetsFromCsv, sheetsToCsv } from '.';

const simple = EXAMPLE_SHEETS.filter((s): s is ChangedKind => s.is === 'changes');
const boxes = EXAMPLE_SHEETS.filter((s) => s.is === 'parts');
const value = (text: string, held: readonly Sheet[] = []) => {
  const read = sheetsFromCsv(text, held);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};

test('sheets that are held go out and come back as they are; boxes of parts stay behind', () => {
  expect(simple.length).toBeGreaterThan(0);
  expect(boxes.length).toBeGreaterThan(0);
  const text = sheetsToCsv(EXAMPLE_SHEETS);
  expect(value(text, EXAMPLE_SHEETS)).toEqual(simple);
});

test('into an empty locker comes all that the table speaks of', () => {
  const word = fc
    .string({ minLength: 1, maxLength: 30, unit: 'grapheme-ascii' })
    .map((s) => s.trim());
  const row = fc.record({
    name: word.filter(Boolean),
    base: fc.constantFrom(...KINDS.filter((k) => k.power).map((k) => k.id)),
    maker: word,
    power: fc.option(
      fc.record({ volts: fc.constantFrom(9, 12, 18), milliamps: fc.integer({ min: 1, max: 500 }) }),
      { nil: undefined },
    ),
    price: fc.option(fc.integer({ min: 0, max: 900 }), { nil: undefined }),
  });
  fc.assert(
    fc.property(
      fc.uniqueArray(row, { selector: (r) => r.name, minLength: 1, maxLength: 8 }),
      (rows) => {
        const sheets = rows.map(({ name, base, maker, power, price }, n): Sheet => ({
          is: 'changes',
          id: `s${n}`,
          name,
          base,
          ...(maker && { maker }),
          ...(power && { power }),
          ...(price !== undefined && { price }),
        }));
        fc.pre(sheets.every((s) => checkSheet(s).ok));
        const back = value(sheetsToCsv(sheets));
        expect(back.map((s) => ({ ...s, id: '' }))).toEqual(sheets.map((s) => ({ ...s, id: '' })));
        expect(new Set(back.map((s) => s.id)).size).toBe(back.length);
      },
    ),
    { numRuns: 60 },
  );
});

test('a kind is found by its name; a row changes what it says, and leaves the rest of a sheet', () => {
  const [sheet] = value('sheet;kind;mA;V\r\nBrine;Drive, mid gain;12,5;9');
  expect(sheet).toMatchObject({ base: 'drive-mid', power: { volts: 9, milliamps: 12.5 } });
  const held: Sheet = { ...simple[0]!, notes: 'kept', price: 10 };
  const [changed] = value(`id,sheet,kind,price\r\n${held.id},Other,${held.base},25`, [held]);
  expect(changed).toEqual({ ...held, name: 'Other', price: 25 });
});

test.each([
  ['sheet,kind\r\n,delay', 'row 2', 'no name'],
  ['sheet,kind\r\nA,nothing such', 'row 2', '"nothing such" is no kind'],
  ['sheet,kind,mA\r\nA,delay,many', 'row 2', '"many" in the column mA is no number'],
  ['sheet,kind,mA,V\r\nA,delay,-5,9', 'row 2', 'milliamps'],
  [`id,sheet,kind\r\n${boxes[0]!.id},A,delay`, 'row 2', 'a box of parts'],
  [`id,sheet,kind\r\n${simple[0]!.id},A,delay\r\n${simple[0]!.id},B,delay`, 'row 3', 'twice'],
  ['name,kind\r\nA,delay', 'row 1', 'sheet'],
])('%j is refused with its row', (text, where, what) => {
  const read = sheetsFromCsv(text, EXAMPLE_SHEETS);
  expect(read).toMatchObject({ ok: false });
  expect(!read.ok && read.problems.some((p) => p.where === where && p.what.includes(what))).toBe(
    true,
  );
});
