import { randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import { EXAMPLE_SHEETS, touringRig } from '../core/demo';
import { applyEdits, type Edit, kindOfSheet, type Rig, writeRig } from '../core/rig';
import { device, rigOf } from '../core/testing/rigs';
import type { Db } from './database';
import { type Heard, Listening } from './live/listening';
import { tell } from './live/telling';
import { listRigs } from './listed';
import {
  archiveRig,
  createRig,
  listRevisions,
  loadRevision,
  loadRig,
  nameRevision,
  saveRig,
  tagRig,
} from './rigs';
import { renameRig, substituteIn } from './change-rig';
import { testDatabase } from './test-database';

let db: Db;
let drop: () => Promise<void>;

beforeAll(async () => {
  ({ db, drop } = await testDatabase('test'));
});
afterAll(() => drop());

const changed = (rig: Rig, ...edits: Edit[]): Rig => {
  const r = applyEdits(rig, edits);
  if (!r.ok) throw new Error(r.problems[0]!.what);
  return r.value.rig;
};
let count = 0;
const fresh = async (): Promise<Rig> => {
  const rig = { ...touringRig, id: `rig-${++count}` };
  await createRig(db, rig, 'made');
  return rig;
};

test('a rig comes back as it was stored, whatever the order of its fields', async () => {
  const rig = await fresh();
  const saved = (await loadRig(db, rig.id))!;
  expect(saved.rig).toEqual(JSON.parse(writeRig(rig)));
  expect(saved.revision).toBe(1);
  expect(await createRig(db, rig, 'again')).toBe(false);
});

/** Saves a change as a page does: from the revision it is based on, as one with an identity of its own. */
const save = async (rig: Rig, from: Rig, words: string, base?: string, identity = randomUUID()) =>
  saveRig(db, {
    rig,
    words,
    identity,
    by: 'Ada',
    base: base ?? (await loadRig(db, from.id))!.identity,
  });

test('each save is a revision with its words and its person; none can be changed or removed', async () => {
  const rig = await fresh();
  const one = changed(rig, { edit: 'renameRig', name: 'Second' });
  expect(await save(one, rig, 'renamed')).toEqual({ outcome: 'saved', revision: 2 });
  expect(
    (await listRevisions(db, rig.id)).map((r) => [r.number, r.basedOn, r.words, r.by]),
  ).toEqual([
    [2, 1, 'renamed', 'Ada'],
    [1, null, 'made', null],
  ]);
  expect((await loadRevision(db, rig.id, 1))!.name).toBe(rig.name);
  expect((await listRigs(db)).find((r) => r.id === rig.id)).toMatchObject({
    name: 'Second',
    head: 2,
    devices: rig.devices.length,
  });
  await expect(
    sql`update revision set words = 'x' where rig_id = ${rig.id}`.execute(db),
  ).rejects.toThrow('kept as they were saved');
  await expect(sql`delete from revision where rig_id = ${rig.id}`.execute(db)).rejects.toThrow(
    'kept as they were saved',
  );
});

test('a page that is behind writes nothing and gets the newest; one from another database likewise', async () => {
  const rig = await fresh();
  const { identity } = (await loadRig(db, rig.id))!;
  const theirs = changed(rig, { edit: 'renameRig', name: 'Theirs' });
  await save(theirs, rig, 'theirs');
  const mine = changed(rig, { edit: 'renameRig', name: 'Mine' });
  expect(await save(mine, rig, 'mine', identity)).toMatchObject({
    outcome: 'behind',
    head: { revision: 2, by: 'Ada', words: 'theirs', rig: { name: 'Theirs' } },
  });
  expect(await save(mine, rig, 'mine', randomUUID())).toMatchObject({
    outcome: 'unknown base',
    head: { revision: 2 },
  });
  expect(await listRevisions(db, rig.id)).toHaveLength(2);
});

test('a save sent twice is stored once, also when others have saved after it', async () => {
  const rig = await fresh();
  const next = changed(rig, { edit: 'renameRig', name: 'Once' });
  const [{ identity: base }, identity] = [(await loadRig(db, rig.id))!, randomUUID()];
  await save(next, rig, 'first', base, identity);
  expect(await save(next, rig, 'first', base, identity)).toEqual({ outcome: 'saved', revision: 2 });
  await save(changed(next, { edit: 'setRigNotes', notes: 'more' }), rig, 'another');
  expect(await save(next, rig, 'first', base, identity)).toMatchObject({
    outcome: 'saved',
    revision: 2,
    newer: { revision: 3, rig: { notes: 'more' } },
  });
  expect(await listRevisions(db, rig.id)).toHaveLength(3);
});

test('of ten saves at once from one revision, one is written and nine are told to join', async () => {
  const rig = await fresh();
  const { identity } = (await loadRig(db, rig.id))!;
  const ids = rig.devices.slice(0, 10).map((d) => d.id);
  const answers = await Promise.all(
    ids.map((device) =>
      save(changed(rig, { edit: 'setDevice', device, notes: device }), rig, device, identity),
    ),
  );
  expect(answers.map((a) => a.outcome).sort()).toEqual([
    ...Array<string>(9).fill('behind'),
    'saved',
  ]);
});

test('a word changed in a rig of 25 KB takes less than a kilobyte, and every revision comes back whole', async () => {
  const rig = await fresh();
  let now: Rig = rig;
  const was: Rig[] = [now];
  for (let n = 0; n < 60; n++) {
    now = changed(
      now,
      n % 7 === 3
        ? { edit: 'removeDevice', device: now.devices.at(-1)!.id }
        : { edit: 'setDevice', device: now.devices[n % 5]!.id, notes: `word ${n}` },
    );
    was.push(now);
    expect(await save(now, rig, `change ${n}`)).toMatchObject({ outcome: 'saved' });
  }
  const { rows } = await sql<{ bytes: number; whole: number }>`select
    avg(pg_column_size(r.*))::int as bytes, count(document)::int as whole
    from revision r where rig_id = ${rig.id} and number > 1`.execute(db);
  expect(rows[0]!.bytes).toBeLessThan(1000);
  expect(rows[0]!.whole).toBeLessThanOrEqual(2);
  for (const [i, rig] of was.entries())
    expect(await loadRevision(db, rig.id, i + 1)).toEqual(JSON.parse(writeRig(rig)));
});

test('revisions are found by words, person, name and day, page by page', async () => {
  const rig = await fresh();
  let now: Rig = rig;
  for (let n = 0; n < 6; n++) {
    now = changed(now, { edit: 'setRigNotes', notes: `n${n}` });
    await save(now, rig, n % 2 ? `turned 100% of it ${n}` : `moved ${n}`);
  }
  const numbers = async (search: Parameters<typeof listRevisions>[2]) =>
    (await listRevisions(db, rig.id, search)).map((r) => r.number);
  expect(await numbers({ words: 'TURNED' })).toEqual([7, 5, 3]);
  expect(await numbers({ words: '100% ada' })).toEqual([7, 5, 3]);
  expect(await numbers({ words: '%_%' })).toEqual([]);
  expect(await numbers({ before: 4, limit: 2 })).toEqual([3, 2]);
  expect(await nameRevision(db, rig.id, 4, 'as played in the harbour')).toBe(true);
  expect(await numbers({ words: 'harbour' })).toEqual([4]);
  expect(await nameRevision(db, rig.id, 4, null)).toBe(true);
  expect(await numbers({ words: 'harbour' })).toEqual([]);
  expect(await nameRevision(db, rig.id, 99, 'none')).toBe(false);
  const day = 24 * 3600 * 1000;
  expect(await numbers({ from: new Date(Date.now() + day) })).toEqual([]);
  expect(await numbers({ until: new Date(Date.now() - day) })).toEqual([]);
  expect(await numbers({ from: new Date(Date.now() - day) })).toHaveLength(7);
});

test('what is saved is told to everybody who listens, once it is committed', async () => {
  const rig = await fresh();
  const { rows } = await sql<{ name: string }>`select current_database() as name`.execute(db);
  const url = process.env.DATABASE_URL!.replace(/\/[^/]*$/, `/${rows[0]!.name}`);
  const listening = new Listening(url);
  const heard: Heard[] = [];
  const leave = listening.on(rig.id, (h) => heard.push(h));
  const until = async (there: () => boolean) => {
    for (let n = 0; n < 200 && !there(); n++) await new Promise((r) => setTimeout(r, 10));
  };
  // The line is open once its own words come back.
  const presence = { tab: 'page-one-1', name: 'Ada', device: 'kiln' };
  for (let n = 0; n < 100 && !heard.length; n++) {
    await tell(db, { is: 'here', rig: rig.id, presence });
    await until(() => heard.length > 0);
  }
  heard.length = 0;
  await save(changed(rig, { edit: 'renameRig', name: 'Told' }), rig, 'renamed');
  await archiveRig(db, rig.id, true);
  await until(() => heard.some((h) => h.is === 'archived'));
  expect(heard.filter((h) => h.is !== 'here')).toMatchObject([
    { is: 'saved', rig: rig.id, revision: 2 },
    { is: 'archived', archived: true },
  ]);
  leave();
  listening.close();
});

test('rename, archive and bring back', async () => {
  const rig = await fresh();
  expect(await renameRig(db, rig.id, 'Other')).toEqual({ ok: true });
  expect(await renameRig(db, 'nobody', 'Other')).toMatchObject({ ok: false, status: 404 });
  expect(await archiveRig(db, rig.id, true)).toBe(true);
  expect((await loadRig(db, rig.id))!.archived).toBe(true);
  await archiveRig(db, rig.id, false);
  expect((await listRigs(db)).find((r) => r.id === rig.id)).toMatchObject({
    archived: false,
    name: 'Other',
  });
  expect(await archiveRig(db, 'nobody', true)).toBe(false);
  expect(await save({ ...rig, id: 'nobody' }, rig, '')).toEqual({ outcome: 'missing' });
});

test('the tables have the columns that the code names, and refuse what is no rig', async () => {
  const { rows } = await sql<{
    table_name: string;
    column_name: string;
  }>`select table_name, column_name from information_schema.columns
    where table_schema = 'public' and table_name in ('rig', 'revision') order by 1, 2`.execute(db);
  expect(rows.map((r) => `${r.table_name}.${r.column_name}`)).toEqual([
    'revision.based_on',
    'revision.delta',
    'revision.document',
    'revision.identity',
    'revision.number',
    'revision.rig_id',
    'revision.saved_at',
    'revision.saved_by',
    'revision.words',
    'rig.archived_at',
    'rig.changed_at',
    'rig.created_at',
    'rig.devices',
    'rig.head',
    'rig.id',
    'rig.name',
    'rig.sounds',
    'rig.tags',
  ]);
  await expect(
    sql`insert into revision (rig_id, number, words, document) values ('rig-1', 99, '', '{"format":"other"}')`.execute(
      db,
    ),
  ).rejects.toThrow('check constraint');
});

test('tags sort a rig in the list, each once; an unknown rig and too many words are refused', async () => {
  const rig = await fresh();
  expect(await tagRig(db, rig.id, ['fly', 'template', 'fly'])).toBe(true);
  expect((await listRigs(db)).find((r) => r.id === rig.id)!.tags).toEqual(['fly', 'template']);
  expect(await tagRig(db, 'nobody', ['fly'])).toBe(false);
  const many = Array.from({ length: 21 }, (_, n) => `tag ${n}`);
  await expect(tagRig(db, rig.id, many)).rejects.toThrow();
  expect((await listRigs(db)).find((r) => r.id === rig.id)!.tags).toEqual(['fly', 'template']);
});

test('a sheet is exchanged only in the revision in which that was tried, and only where it is', async () => {
  const [of, by] = EXAMPLE_SHEETS;
  const sides = [
    { is: 'sheet', id: of!.id },
    { is: 'sheet', sheet: by! },
  ] as const;
  const rig: Rig = {
    ...rigOf([device('box', kindOfSheet(of!).id, 'Box')], []),
    id: `rig-${++count}`,
    sheets: [of!],
  };
  await createRig(db, rig, 'made');
  const tried = (await loadRig(db, rig.id))!.identity;
  // Somebody else changes it after it was tried: nothing is exchanged.
  await save(changed(rig, { edit: 'renameRig', name: 'Meanwhile' }), rig, 'renamed');
  const late = await substituteIn(db, rig.id, sides, tried, 'exchanged');
  expect(late).toMatchObject({
    ok: false,
    status: 409,
    why: expect.stringContaining('Try it again'),
  });
  const again = (await loadRig(db, rig.id))!.identity;
  expect(await substituteIn(db, rig.id, sides, again, 'exchanged')).toEqual({ ok: true });
  const after = (await loadRig(db, rig.id))!;
  expect(after.rig.devices.map((d) => d.kind)).toEqual([kindOfSheet(by!).id]);
  expect(after.rig.name).toBe('Meanwhile');
  // There is nothing of it any more, and no revision is made of nothing.
  expect(await substituteIn(db, rig.id, sides, after.identity, 'exchanged')).toMatchObject({
    status: 422,
  });
  expect((await loadRig(db, rig.id))!.revision).toBe(after.revision);
});
