import { randomUUID } from 'node:crypto';
import { touringRig } from '../core/demo';
import type { Rig } from '../core/rig';
import type { Db } from './database';
import { gearUnitSchema, listGear, putGear, removeGear } from './gear';
import { changeTo } from '../core/show/book';
import { keepChanges } from './logbook';
import { archiveRig, createRig, loadRig, saveRig } from './rigs';
import { testDatabase } from './test-database';

let db: Db;
let drop: () => Promise<void>;

/** Saves on the newest revision. */
const save = async (rig: Rig, words: string) =>
  saveRig(db, {
    rig,
    words,
    by: null,
    identity: randomUUID(),
    base: (await loadRig(db, rig.id))!.identity,
  });

beforeAll(async () => {
  ({ db, drop } = await testDatabase('gear'));
});
afterAll(() => drop());

const rigWith = (id: string, serials: (string | undefined)[]): Rig => ({
  ...touringRig,
  id,
  name: id,
  devices: serials.map((serial, i) => ({
    id: `d${i}`,
    kind: 'boost',
    name: `Boost ${i}`,
    gear: { ...(serial !== undefined && { serial }), value: 100 + i },
  })),
  leads: [],
  sounds: [touringRig.sounds[0]!].map((s) => ({ ...s, states: {} })),
  cases: [],
  stage: undefined,
  boards: undefined,
  racks: undefined,
  looms: undefined,
});
const unit = async (serial: string) => (await listGear(db)).find((u) => u.serial === serial);

test('uses follow every save; two rigs double-book a unit on the dates on which both play, until one is archived', async () => {
  await createRig(db, rigWith('one', ['A-1', undefined, 'A-2']), 'made');
  await createRig(db, rigWith('two', ['A-1']), 'made');
  expect(await unit('A-1')).toMatchObject({ name: 'Boost 0', value: 100, doubleBooked: false });
  const plays = (rig: string, id: string, date: string) =>
    keepChanges(db, rig, [changeTo<'show'>('show', id, undefined, { date, venue: 'Silo' })]);
  await plays('one', 's1', '2999-05-01');
  await plays('two', 's2', '2999-05-02');
  expect((await unit('A-1'))!.doubleBooked).toBe(false);
  await plays('two', 's3', '2999-05-01');
  // What is over is no matter any more.
  await plays('one', 's4', '2020-05-01');
  await plays('two', 's5', '2020-05-01');
  expect(await unit('A-1')).toMatchObject({ doubleBooked: true, clashes: ['2999-05-01'] });
  expect((await unit('A-1'))!.uses.map((u) => [u.rig, u.device])).toEqual([
    ['one', 'd0'],
    ['two', 'd0'],
  ]);
  expect(await unit('A-2')).toMatchObject({ doubleBooked: false });
  await archiveRig(db, 'two', true);
  expect((await unit('A-1'))!.doubleBooked).toBe(false);
  await archiveRig(db, 'two', false);
  expect((await unit('A-1'))!.doubleBooked).toBe(true);
  expect((await save(rigWith('two', ['A-3']), 'another')).outcome).toBe('saved');
  expect((await unit('A-1'))!.uses.map((u) => u.rig)).toEqual(['one']);
  expect((await unit('A-3'))!.uses.map((u) => u.rig)).toEqual(['two']);
});

test(
  'the same unit twice in one rig is double-booked, too; a save that fails leaves the ' +
    'uses as they were',
  async () => {
    await createRig(db, rigWith('three', ['B-1', 'B-1']), 'made');
    expect((await unit('B-1'))!.doubleBooked).toBe(true);
    const long = rigWith('three', ['x'.repeat(121)]);
    await expect(save(long, 'too long')).rejects.toThrow();
    expect((await unit('B-1'))!.uses).toHaveLength(2);
  },
);

test('what the locker says of a unit stays; what it does not say is filled from a rig', async () => {
  await putGear(
    db,
    gearUnitSchema.parse({ serial: 'C-1', name: 'The good one', owner: 'Odd', grams: 410 }),
  );
  const rig = rigWith('four', ['C-1']);
  rig.devices[0]!.gear = { serial: 'C-1', owner: 'Iseult', grams: 999, value: 250 };
  await createRig(db, rig, 'made');
  expect(await unit('C-1')).toMatchObject({
    name: 'The good one',
    owner: 'Odd',
    grams: 410,
    value: 250,
  });
  await putGear(
    db,
    gearUnitSchema.parse({
      serial: 'C-1',
      name: 'The good one',
      owner: 'Odd',
      grams: 420,
      value: null,
    }),
  );
  expect(await unit('C-1')).toMatchObject({ grams: 420, value: null });
});

test('a unit that is used cannot be taken out; one that is not, can; a unit wants a number and a name', async () => {
  expect(await removeGear(db, 'C-1')).toEqual({ removed: false, usedIn: ['four'] });
  await putGear(db, gearUnitSchema.parse({ serial: 'D-1', name: 'Spare' }));
  expect(await removeGear(db, 'D-1')).toEqual({ removed: true, usedIn: [] });
  expect(await removeGear(db, 'D-1')).toEqual({ removed: false, usedIn: [] });
  expect(gearUnitSchema.safeParse({ serial: ' ', name: 'X' }).success).toBe(false);
  expect(gearUnitSchema.safeParse({ serial: 'X', name: '' }).success).toBe(false);
});
