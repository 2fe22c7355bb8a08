import type { Kysely } from 'kysely';

/** How many findings of each severity the last report of a rig has, so that the list of rigs can say it. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('report').addColumn('open', 'jsonb').execute();
}
