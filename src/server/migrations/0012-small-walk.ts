import type { Kysely } from 'kysely';

/** The walk of a rig's first sound, small, so that the list of rigs can draw it. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema.alterTable('report').addColumn('walk', 'jsonb').execute();
}
