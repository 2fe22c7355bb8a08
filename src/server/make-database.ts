import { sql } from 'kysely';
import { openDatabase } from './database';

/** Run by the test script: `create NAME` or `drop NAME` on the server at DATABASE_URL. */
const [action, name] = process.argv.slice(2);
const db = openDatabase(process.env.DATABASE_URL ?? '');
const work =
  action === 'create'
    ? sql`create database ${sql.id(name!)}`
    : sql`drop database ${sql.id(name!)} with (force)`;
work.execute(db).then(
  () => db.destroy(),
  (error: unknown) => {
    process.stderr.write(`${String(error)}\n`);
    process.exitCode = 1;
    return db.destroy();
  },
);
