import { type Kysely, sql } from 'kysely';

/** How cases of the trainer went, for the whole crew; a page with no network sends them later. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('trainer_score')
    .addColumn('id', 'text', (c) => c.primaryKey().check(sql`length(id) between 1 and 64`))
    .addColumn('rig_id', 'text', (c) => c.notNull().references('rig.id'))
    .addColumn('body', 'jsonb', (c) => c.notNull())
    .execute();
  await db.schema.createIndex('trainer_score_rig').on('trainer_score').column('rig_id').execute();
}
