import { Kysely, Migrator, PostgresDialect } from 'kysely';
import { Pool } from 'pg';
import { MIGRATIONS } from './migrations';
import type { Database } from './schema';

export type Db = Kysely<Database>;

/** Opens a database by its address (DATABASE_URL). Connections are made when first used, and again after a loss. */
export function openDatabase(url: string): Db {
  const pool = new Pool({
    connectionString: url,
    // For two hundred editors in two processes: a save takes milliseconds, and waits its turn.
    max: 20,
    connectionTimeoutMillis: 15_000,
    application_name: 'yantrel',
  });
  // A connection that breaks while idle must not end the process; the next query makes a new one.
  pool.on('error', () => undefined);
  return new Kysely<Database>({ dialect: new PostgresDialect({ pool }) });
}

const shared = globalThis as { yantrelDatabase?: Db };

/** The database of this process, by DATABASE_URL. */
export function database(): Db {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set. Start Yantrel with "npm run demo".');
  return (shared.yantrelDatabase ??= openDatabase(url));
}

/** Brings the tables up to date; does nothing where they are. */
export async function migrate(db: Db): Promise<void> {
  const { error } = await new Migrator({
    db,
    provider: { getMigrations: () => Promise.resolve(MIGRATIONS) },
  }).migrateToLatest();
  if (error)
    throw error instanceof Error ? error : new Error('the tables cannot be made', { cause: error });
}
