import { sql } from 'kysely';
import { chainOf } from '../core/testing/rigs';
import type { Db } from './database';
import { createRig, goBackTo, listRevisions, loadRaw, loadRig } from './rigs';
import { UnreadableRevision } from './stored';
import { testDatabase } from './test-database';

let db: Db;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ db, drop } = await testDatabase('stored'));
});
afterAll(() => drop());

const rig = { ...chainOf(['guitar-active', 'boost', 'console-input']), id: 'old' };

/** Writes a document as the newest revision, past every check, as another program may have left it. */
const leave = async (document: object) => {
  await sql`insert into revision (rig_id, number, based_on, words, document)
    select id, head + 1, head, 'left behind', ${JSON.stringify(document)}::jsonb from rig where id = ${rig.id}`.execute(
    db,
  );
  await sql`update rig set head = head + 1 where id = ${rig.id}`.execute(db);
};

test('a document of an earlier version is brought up to date as it is read', async () => {
  await createRig(db, rig, 'made');
  const { leads, sounds, ...rest } = rig;
  await leave({
    ...rest,
    version: 0,
    cables: leads.map(({ metres, ...l }) => ({ ...l, lengthCm: metres * 100 })),
    sounds: sounds.map((s) => ({ ...s, states: { d1: { on: true } } })),
  });
  const saved = await loadRig(db, rig.id);
  expect(saved?.rig.leads).toEqual(leads);
  expect(saved?.rig.sounds[0]?.states).toEqual({ d1: { engaged: true } });
});

test('one that cannot be read says why, can be taken as it is, and the one before can be gone back to', async () => {
  const strange = { ...rig, devices: rig.devices.map((d) => ({ ...d, kind: 'nobody-knows' })) };
  await leave(strange);
  const failed = await loadRig(db, rig.id).catch((e: unknown) => e);
  expect(failed).toBeInstanceOf(UnreadableRevision);
  expect((failed as Error).message).toMatch(
    /Revision 3 of this rig cannot be read: .*nobody-knows/,
  );
  expect(await loadRaw(db, rig.id, 3)).toEqual(strange);
  expect(await goBackTo(db, rig.id, 1)).toBe(true);
  expect((await loadRig(db, rig.id))?.rig).toEqual(rig);
  expect((await listRevisions(db, rig.id)).map((r) => [r.number, r.words])[0]).toEqual([
    4,
    'went back to revision 1',
  ]);
  expect(await goBackTo(db, rig.id, 99)).toBe(false);
  await expect(goBackTo(db, rig.id, 3)).rejects.toBeInstanceOf(UnreadableRevision);
});
