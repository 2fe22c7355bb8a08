import { at } from '../core/outcome';
import { sql } from 'kysely';
import { openDatabase } from './database';

/** Run by the start script before it stops the database: prints how many other Yantrel connections use it. */
async function others(): Promise<number> {
  const db = openDatabase(process.env.DATABASE_URL ?? '');
  try {
    const { rows } = await sql<{
      n: number;
    }>`select count(*)::int as n from pg_stat_activity
    where application_name = 'yantrel' and pid <> pg_backend_pid()`.execute(db);
    return at(rows, 0).n;
  } finally {
    await db.destroy();
  }
}

others().then(
  (n) => process.stdout.write(`${n}\n`),
  () => process.stdout.write('0\n'),
);
