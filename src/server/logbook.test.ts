import { touringRig } from '../core/demo';
import { type Change, changeTo, type Line, linksIn, type Show } from '../core/show/book';
import { device, rigOf } from '../core/testing/rigs';
import type { Db } from './database';
import { bookOf, doubleBooked, keepChanges, linesOfUnit } from './logbook';
import { listRigs } from './listed';
import { createRig } from './rigs';
import { testDatabase } from './test-database';

let db: Db;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ db, drop } = await testDatabase('logbook'));
  await createRig(db, touringRig, 'made');
  await createRig(db, withUnit('other', 'SN-1'), 'made');
  await createRig(db, withUnit('third', 'SN-1'), 'made');
});
afterAll(() => drop());

const withUnit = (id: string, serial: string) => ({
  ...rigOf([device('box', 'boost', 'Flare Boost', { gear: { serial } })], []),
  id,
  name: id,
});
const RIG = touringRig.id;
const line = (id: string, text: string, before?: Line): Change =>
  changeTo<'line'>('line', id, before, {
    at: '2026-11-20T21:00:00.000Z',
    text,
    links: linksIn(touringRig, text),
  });
const show = (id: string, date: string, venue = 'Silo'): Change =>
  changeTo<'show'>('show', id, undefined, { date, venue });
const held = async (id: string) => (await bookOf(db, RIG)).line.find((l) => l.id === id);

test('a line is kept with what it is about; sent twice it is there once', async () => {
  const change = line('a', 'Kiln Drive crackles');
  for (let i = 0; i < 2; i++)
    expect(await keepChanges(db, RIG, [change])).toEqual({ refused: [], differs: [] });
  expect((await bookOf(db, RIG)).line.filter((l) => l.id === 'a')).toHaveLength(1);
  expect((await held('a'))!.links).toMatchObject([{ is: 'device', id: 'kiln' }]);
});

test('many who write at once all keep what they wrote: new lines, one new line, fields of one', async () => {
  await Promise.all([1, 2, 3, 4, 5, 6].map((n) => keepChanges(db, RIG, [line(`n${n}`, `${n}`)])));
  expect((await bookOf(db, RIG)).line.filter((l) => l.id.startsWith('n'))).toHaveLength(6);
  await Promise.all([1, 2, 3, 4].map(() => keepChanges(db, RIG, [line('same', 'once')])));
  const before = (await held('same'))!;
  await Promise.all([
    keepChanges(db, RIG, [changeTo<'line'>('line', 'same', before, { text: 'twice' })]),
    keepChanges(db, RIG, [changeTo<'line'>('line', 'same', before, { minutes: 7 })]),
    keepChanges(db, RIG, [changeTo<'line'>('line', 'same', before, { sort: 'fault' })]),
  ]);
  expect(await held('same')).toMatchObject({ text: 'twice', minutes: 7, sort: 'fault' });
});

test('one field that two change otherwise: theirs stays, and both are told', async () => {
  await keepChanges(db, RIG, [line('f', 'as it was')]);
  const before = (await held('f'))!;
  await keepChanges(db, RIG, [changeTo<'line'>('line', 'f', before, { text: 'theirs' })]);
  const kept = await keepChanges(db, RIG, [
    changeTo<'line'>('line', 'f', before, { text: 'yours' }),
  ]);
  expect(kept.differs).toMatchObject([{ field: 'text', theirs: 'theirs', yours: 'yours' }]);
  expect((await held('f'))!.text).toBe('theirs');
});

test('what cannot stand is told and the others are kept; an id of another rig is not touched', async () => {
  const kept = await keepChanges(db, RIG, [
    line('good', 'fine'),
    line('bad', ' '),
    show('never', 'the day after'),
  ]);
  expect(kept.refused.map((r) => r.id).sort()).toEqual(['bad', 'never']);
  expect(await held('good')).toBeDefined();
  expect((await keepChanges(db, 'other', [line('good', 'mine')])).refused).toMatchObject([
    { problems: ['this id belongs to another rig'] },
  ]);
  expect((await held('good'))!.text).toBe('fine');
});

test('the list of rigs says the next show of each, today or later, and none that is gone', async () => {
  const next = async () => (await listRigs(db)).find((r) => r.id === RIG)!.next;
  await keepChanges(db, RIG, [show('past', '2020-01-01'), show('late', '2999-05-02', 'Far off')]);
  expect(await next()).toEqual({ date: '2999-05-02', venue: 'Far off' });
  await keepChanges(db, RIG, [show('soon', '2999-05-01', 'Sooner')]);
  expect(await next()).toEqual({ date: '2999-05-01', venue: 'Sooner' });
});

test('lines of a unit are found in whatever rig they were written, by its serial number', async () => {
  for (const rig of ['other', 'third'])
    await keepChanges(db, rig, [
      changeTo<'line'>('line', `unit-${rig}`, undefined, {
        at: '2026-11-21T20:00:00.000Z',
        text: `dead in ${rig}`,
        sort: 'fault',
        links: [{ is: 'device', id: 'box', name: 'Flare Boost', serial: 'SN-1' }],
      }),
    ]);
  const lines = await linesOfUnit(db, 'SN-1');
  expect(lines.map((l) => l.rigName).sort()).toEqual(['other', 'third']);
});

test('two rigs want one unit on one date: told; on other dates, or when one show is gone, not', async () => {
  await keepChanges(db, 'other', [show('o1', '2026-12-01'), show('o2', '2026-12-05')]);
  await keepChanges(db, 'third', [show('t1', '2026-12-01', 'Ice house'), show('t2', '2026-12-06')]);
  expect(await doubleBooked(db, 'other')).toEqual([
    {
      date: '2026-12-01',
      serial: 'SN-1',
      name: 'Flare Boost',
      otherRig: 'third',
      otherVenue: 'Ice house',
    },
  ]);
  const theirs = (await bookOf(db, 'third')).show.find((s) => s.id === 't1') as Show;
  await keepChanges(db, 'third', [changeTo<'show'>('show', 't1', theirs, { gone: true })]);
  expect(await doubleBooked(db, 'other')).toEqual([]);
});
