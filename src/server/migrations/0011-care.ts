import { type Kysely, sql } from 'kysely';

/** How often care is due for one device of a rig, where the crew says otherwise than the trade. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('care_interval')
    .addColumn('id', 'text', (c) => c.primaryKey().check(sql`length(id) between 1 and 64`))
    .addColumn('rig_id', 'text', (c) => c.notNull().references('rig.id'))
    .addColumn('body', 'jsonb', (c) => c.notNull())
    .execute();
  await db.schema.createIndex('care_interval_rig').on('care_interval').column('rig_id').execute();
}
