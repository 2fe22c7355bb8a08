import { sql } from 'kysely';
import { type Db, migrate, openDatabase } from './database';

/**
 * A database of its own for a file of tests: made and migrated (twice, which changes nothing), and
 * dropped when they are done.
 */
export async function testDatabase(name: string): Promise<{ db: Db; drop: () => Promise<void> }> {
  const url = process.env.DATABASE_URL!;
  const admin = openDatabase(url);
  const own = `yantrel_${name}_${process.pid}`;
  await sql`create database ${sql.id(own)}`.execute(admin);
  const db = openDatabase(url.replace(/\/[^/]*$/, `/${own}`));
  await migrate(db);
  await migrate(db);
  return {
    db,
    drop: async () => {
      await db.destroy();
      await sql`drop database ${sql.id(own)} with (force)`.execute(admin);
      await admin.destroy();
    },
  };
}
