import { sql } from 'kysely';
import { touringRig } from '../core/demo';
import { applyEdits, type Edit, type Rig, writeRig } from '../core/rig';
import type { Db } from './database';
import {
  archiveRig,
  createRig,
  listRevisions,
  listRigs,
  loadRevision,
  loadRig,
  renameRig,
  saveRig,
} from './rigs';
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

test('each save is a revision with its words; none can be changed or removed', async () => {
  const rig = await fresh();
  const one = changed(rig, { edit: 'renameRig', name: 'Second' });
  expect(await saveRig(db, one, 1, 'renamed')).toEqual({ outcome: 'saved', revision: 2 });
  expect((await listRevisions(db, rig.id)).map((r) => [r.number, r.basedOn, r.words])).toEqual([
    [2, 1, 'renamed'],
    [1, null, 'made'],
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

test('a stale save merges what touches different things', async () => {
  const rig = await fresh();
  await saveRig(
    db,
    changed(rig, { edit: 'setDevice', device: 'kiln', notes: 'theirs' }),
    1,
    'theirs',
  );
  const result = await saveRig(
    db,
    changed(rig, { edit: 'setDevice', device: 'brine', notes: 'mine' }),
    1,
    'mine',
  );
  expect(result).toMatchObject({ outcome: 'merged', revision: 3 });
  const { rig: now } = (await loadRig(db, rig.id))!;
  expect(
    now.devices
      .filter((d) => d.notes === 'theirs' || d.notes === 'mine')
      .map((d) => d.id)
      .sort(),
  ).toEqual(['brine', 'kiln']);
});

test('a stale save that touches the same thing writes nothing and gives both sides', async () => {
  const rig = await fresh();
  await saveRig(db, changed(rig, { edit: 'renameRig', name: 'Theirs' }), 1, 'theirs');
  const result = await saveRig(db, changed(rig, { edit: 'renameRig', name: 'Mine' }), 1, 'mine');
  expect(result).toMatchObject({
    outcome: 'conflict',
    conflicts: [{ where: 'name', mine: 'Mine', theirs: 'Theirs' }],
    theirs: { revision: 2 },
  });
  expect((await loadRig(db, rig.id))!.revision).toBe(2);
});

test('a save sent twice is stored once', async () => {
  const rig = await fresh();
  const next = changed(rig, { edit: 'renameRig', name: 'Once' });
  await saveRig(db, next, 1, 'first');
  expect(await saveRig(db, next, 1, 'first')).toMatchObject({ outcome: 'merged', revision: 2 });
  expect(await listRevisions(db, rig.id)).toHaveLength(2);
});

test('ten saves at once from one revision: nothing is lost', async () => {
  const rig = await fresh();
  const ids = rig.devices.slice(0, 10).map((d) => d.id);
  await Promise.all(
    ids.map((device) =>
      saveRig(db, changed(rig, { edit: 'setDevice', device, notes: `by ${device}` }), 1, device),
    ),
  );
  const now = (await loadRig(db, rig.id))!;
  expect(now.revision).toBe(11);
  expect(now.rig.devices.slice(0, 10).map((d) => d.notes)).toEqual(ids.map((id) => `by ${id}`));
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
  expect(await saveRig(db, { ...rig, id: 'nobody' }, 1, '')).toEqual({ outcome: 'missing' });
});

test('the tables have the columns that the code names, and refuse what is no rig', async () => {
  const { rows } = await sql<{
    table_name: string;
    column_name: string;
  }>`select table_name, column_name from information_schema.columns
    where table_schema = 'public' and table_name in ('rig', 'revision') order by 1, 2`.execute(db);
  expect(rows.map((r) => `${r.table_name}.${r.column_name}`)).toEqual([
    'revision.based_on',
    'revision.document',
    'revision.number',
    'revision.rig_id',
    'revision.saved_at',
    'revision.words',
    'rig.archived_at',
    'rig.changed_at',
    'rig.created_at',
    'rig.head',
    'rig.id',
    'rig.name',
  ]);
  await expect(
    sql`insert into revision (rig_id, number, words, document) values ('rig-1', 99, '', '{"format":"other"}')`.execute(
      db,
    ),
  ).rejects.toThrow('check constraint');
});
