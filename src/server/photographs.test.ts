import { EXAMPLE_SHEETS } from '../core/demo';
import { kindOfSheet } from '../core/rig';
import { device, rigOf } from '../core/testing/rigs';
import type { Db } from './database';
import { lockerThings } from './exchange';
import { gearUnitSchema, listGear, putGear, removeGear } from './gear';
import { addPhotograph, loadPhotograph, photographsOf, removePhotograph } from './photographs';
import { createRig } from './rigs';
import { listSheets, putSheet, removeSheet, unreadSheets } from './sheets';
import { testDatabase } from './test-database';

let db: Db;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ db, drop } = await testDatabase('photographs'));
});
afterAll(() => drop());

/** The head of a PNG of a size, in pixels, which is all that tells what it is. */
function png(width: number, height: number, bytes = 64): Uint8Array {
  const body = Buffer.alloc(bytes);
  body.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13]);
  body.write('IHDR', 12, 'latin1');
  body.writeUInt32BE(width, 16);
  body.writeUInt32BE(height, 20);
  return body;
}

const unit = (serial: string, more: object = {}) =>
  putGear(db, gearUnitSchema.parse({ serial, name: `Unit ${serial}`, ...more }));
const unitIn = async (serial: string) => (await listGear(db)).find((u) => u.serial === serial)!;
const sheet = EXAMPLE_SHEETS[0]!;

test('photographs of a unit and a sheet come and go with what they show', async () => {
  await unit('P-1');
  await putSheet(db, sheet, null);
  const of = { is: 'unit', id: 'P-1' } as const;
  expect(await addPhotograph(db, of, png(640, 480))).toEqual({ ok: true });
  expect(await addPhotograph(db, { is: 'sheet', id: sheet.id }, png(30, 40))).toEqual({ ok: true });
  const [mine] = (await unitIn('P-1')).photographs;
  expect(mine).toMatchObject({ width: 640, height: 480 });
  expect(await loadPhotograph(db, mine!.id)).toMatchObject({ media: 'image/png' });
  expect((await listSheets(db))[0]!.photographs).toMatchObject([{ width: 30, height: 40 }]);
  expect(await removePhotograph(db, mine!.id)).toBe(true);
  expect(await removePhotograph(db, mine!.id)).toBe(false);
  await addPhotograph(db, of, png(10, 10));
  await removeGear(db, 'P-1');
  expect((await photographsOf(db, 'unit')).size).toBe(0);
  await removeSheet(db, sheet.id);
  expect((await photographsOf(db, 'sheet')).size).toBe(0);
});

test('what is no photograph, too large, one too many or of nothing is refused in words', async () => {
  await unit('P-2');
  const of = { is: 'unit', id: 'P-2' } as const;
  const told = async (body: Uint8Array, what: Parameters<typeof addPhotograph>[1] = of) =>
    JSON.stringify(await addPhotograph(db, what, body));
  expect(await told(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'))).toContain(
    'no photograph',
  );
  expect(await told(Buffer.from('MZ not a picture'))).toContain('no photograph');
  expect(await told(new Uint8Array())).toContain('no photograph');
  expect(await told(png(5000, 20))).toContain('larger than 4096');
  expect(await told(png(20, 20), { is: 'sheet', id: 'nobody' })).toContain('no longer holds');
  // Seven at once: one is refused, whichever it is.
  const all = await Promise.all(Array.from({ length: 7 }, () => told(png(20, 20))));
  expect(all.filter((t) => t.includes('has 6 photographs'))).toHaveLength(1);
  expect((await unitIn('P-2')).photographs).toHaveLength(6);
});

test('a unit knows its sheet: by hand, or from the device it stands for; it outlives the sheet', async () => {
  await putSheet(db, sheet, null);
  expect(await unit('S-1', { sheet: 'nobody' })).toBe(false);
  expect(await unit('S-1', { sheet: sheet.id })).toBe(true);
  expect((await unitIn('S-1')).sheet).toBe(sheet.id);
  // What is not said stays as it is.
  await unit('S-1', { owner: 'Odd' });
  expect(await unitIn('S-1')).toMatchObject({ owner: 'Odd', sheet: sheet.id });
  const box = device('box', kindOfSheet(sheet).id, 'Box', { gear: { serial: 'S-2' } });
  await createRig(db, { ...rigOf([box], []), id: 'with-box', sheets: [sheet] }, 'made');
  expect((await unitIn('S-2')).sheet).toBe(sheet.id);
  expect((await listSheets(db))[0]!.units).toEqual(['S-1', 'S-2']);
  const things = await lockerThings(
    db,
    { is: 'sheet', id: sheet.id },
    { is: 'unit', serial: 'S-1' },
  );
  expect(things).toMatchObject({ name: 'Unit S-1', was: sheet.name, sheet: { id: sheet.id } });
  const gone = { is: 'unit', serial: 'nobody' } as const;
  expect(await lockerThings(db, gone, { is: 'kind', kind: 'boost' })).toBeUndefined();
  await removeSheet(db, sheet.id);
  expect((await unitIn('S-1')).sheet).toBeNull();
});

test('a sheet of a kind that this version does not have stays in the locker, and is told with its place', async () => {
  const body = JSON.stringify({
    is: 'changes',
    id: 'lost',
    name: 'Lost box',
    base: 'no-such-kind',
  });
  await db.insertInto('sheet').values({ id: 'lost', version: 1, body }).execute();
  expect((await listSheets(db)).map((s) => s.sheet.id)).not.toContain('lost');
  expect(await unreadSheets(db)).toEqual([
    {
      id: 'lost',
      name: 'Lost box',
      why: expect.stringMatching(/^base: there is no kind "no-such/),
    },
  ]);
});
