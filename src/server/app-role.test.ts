import { sql } from 'kysely';
import { touringRig } from '../core/demo';
import { appUrl, grantApp } from './app-role';
import { type Db, openDatabase } from './database';
import { createRig, listRevisions, nameRevision } from './rigs';
import { renameRig } from './change-rig';
import { testDatabase } from './test-database';

let owner: Db;
let app: Db;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ db: owner, drop } = await testDatabase('role'));
  const { rows } = await sql<{ name: string }>`select current_database() as name`.execute(owner);
  const url = process.env.DATABASE_URL!.replace(/\/[^/]*$/, `/${rows[0]!.name}`);
  await grantApp(owner, url);
  await grantApp(owner, url);
  app = openDatabase(appUrl(url));
});
afterAll(async () => {
  await app.destroy();
  await drop();
});

test('the application does all of its work with a role that owns nothing', async () => {
  await createRig(app, { ...touringRig, id: 'of-the-app' }, 'made');
  expect(await renameRig(app, 'of-the-app', 'By the app')).toEqual({ ok: true });
  expect(await nameRevision(app, 'of-the-app', 1, 'first')).toBe(true);
  expect(await listRevisions(app, 'of-the-app')).toHaveLength(2);
  const { rows } = await sql<{ n: number }>`select count(*)::int as n from pg_class
    where relowner = (select oid from pg_roles where rolname = current_user)`.execute(app);
  expect(rows[0]!.n).toBe(0);
});

test.each([
  sql`update revision set words = 'x'`,
  sql`delete from revision`,
  sql`alter table revision disable trigger all`,
  sql`drop table rig`,
  sql`delete from rig`,
  sql`create table mine (x int)`,
  sql`select pg_read_file('/etc/passwd')`,
])('what it may not do is refused by the database (%#)', (query) =>
  expect(query.execute(app)).rejects.toThrow(/permission denied|must be owner/),
);
