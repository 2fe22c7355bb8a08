import { type Kysely, sql } from 'kysely';

/**
 * The last report of each rig, packed, with the revision that it belongs to and the build that made
 * it: a rig opens with its figures without anything being worked out first.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('report')
    .addColumn('rig_id', 'text', (c) => c.primaryKey().references('rig.id'))
    .addColumn('identity', 'uuid', (c) => c.notNull())
    .addColumn('build', 'text', (c) => c.notNull())
    .addColumn('body', 'bytea', (c) => c.notNull())
    .addColumn('made_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .execute();
}
