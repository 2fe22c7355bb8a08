import { type Kysely, sql } from 'kysely';

/**
 * What devices of one's own are, across rigs: each sheet with the number of its version, and the
 * rigs that hold a copy. Uses follow every save, in the same transaction.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('sheet')
    .addColumn('id', 'text', (c) => c.primaryKey().check(sql`length(id) between 1 and 64`))
    .addColumn('version', 'integer', (c) => c.notNull().check(sql`version > 0`))
    .addColumn('body', 'jsonb', (c) => c.notNull())
    .addColumn('changed_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .execute();
  await db.schema
    .createTable('sheet_use')
    .addColumn('rig_id', 'text', (c) => c.notNull().references('rig.id'))
    .addColumn('sheet_id', 'text', (c) => c.notNull())
    .addColumn('kind', 'text', (c) => c.notNull())
    .addColumn('devices', 'integer', (c) => c.notNull())
    .addPrimaryKeyConstraint('sheet_use_pkey', ['rig_id', 'sheet_id'])
    .execute();
  await db.schema.createIndex('sheet_use_sheet').on('sheet_use').column('sheet_id').execute();
}
