import { randomUUID } from 'node:crypto';
import { EXAMPLE_SHEETS } from '../core/demo';
import { applyEdit, kindOfSheet, type Rig, type Sheet } from '../core/rig';
import { device, rigOf } from '../core/testing/rigs';
import type { Db } from './database';
import { archiveRig, createRig, loadRig, saveRig } from './rigs';
import { listSheets, putSheet, removeSheet } from './sheets';
import { testDatabase } from './test-database';

let db: Db;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ db, drop } = await testDatabase('sheets'));
});
afterAll(() => drop());

const [twin, delay] = EXAMPLE_SHEETS as [Sheet, Sheet];
const rigWith = (id: string, sheet: Sheet): Rig => ({
  ...rigOf([device('own', kindOfSheet(sheet).id, 'Mine')], []),
  id,
  name: id,
  sheets: [sheet],
});
const held = async (id: string) => (await listSheets(db)).find((s) => s.sheet.id === id);

test('a sheet is put, changed by whoever knows its version, and not by whoever does not', async () => {
  expect(await putSheet(db, twin, null)).toEqual({ is: 'put', version: 1 });
  const mine = { ...twin, name: 'Mine' };
  const theirs = { ...twin, power: { volts: 12, milliamps: 60 } };
  expect(await putSheet(db, theirs, 1)).toEqual({ is: 'put', version: 2 });
  expect(await putSheet(db, mine, 1)).toMatchObject({
    is: 'behind',
    version: 2,
    differences: ['it is called Tandem Drive, was Mine', '12 V, 60 mA'],
  });
  // The same again, by a hand that pressed twice, is no conflict.
  expect(await putSheet(db, theirs, 1)).toEqual({ is: 'put', version: 2 });
  expect((await held(twin.id))!.sheet).toMatchObject({
    name: 'Tandem Drive',
    power: { volts: 12 },
  });
});

test('of many who put one new sheet, or change one, at once, one is in and the others are told', async () => {
  for (const base of [null, 1]) {
    const all = await Promise.all(
      [1, 2, 3, 4, 5].map((n) => putSheet(db, { ...delay, about: `${base} ${n}` }, base)),
    );
    expect(all.filter((o) => o.is === 'put')).toHaveLength(1);
    expect(all.filter((o) => o.is === 'behind')).toHaveLength(4);
  }
});

test('which rigs hold a copy follows every save, and whether it says the same', async () => {
  await putSheet(db, twin, (await held(twin.id))!.version);
  await createRig(db, rigWith('first', twin), 'made');
  expect((await held(twin.id))!.uses).toEqual([
    { rig: 'first', rigName: 'first', devices: 1, isSame: true, archived: false },
  ]);
  const changed = applyEdit(rigWith('first', twin), {
    edit: 'putSheet',
    sheet: { ...twin, about: 'otherwise' },
  });
  if (!changed.ok) throw new Error('refused');
  await saveRig(db, {
    rig: changed.value.rig,
    words: 'changed',
    by: null,
    identity: randomUUID(),
    base: (await loadRig(db, 'first'))!.identity,
  });
  expect((await held(twin.id))!.uses[0]).toMatchObject({ isSame: false });
  await archiveRig(db, 'first', true);
  expect((await held(twin.id))!.uses[0]).toMatchObject({ archived: true });
});

test('a rig keeps its copy when the sheet is taken out of the locker', async () => {
  expect(await removeSheet(db, twin.id)).toBe(true);
  expect(await removeSheet(db, twin.id)).toBe(false);
  expect((await loadRig(db, 'first'))!.rig.sheets).toHaveLength(1);
});
