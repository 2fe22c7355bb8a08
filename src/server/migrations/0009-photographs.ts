import { type Kysely, sql } from 'kysely';

/**
 * Photographs of what the locker holds, small, with the units and sheets that they show; and the sheet
 * that says what a unit is. A unit whose sheet leaves the locker stays, without one.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .alterTable('gear_unit')
    .addColumn('sheet_id', 'text', (c) => c.references('sheet.id').onDelete('set null'))
    .execute();
  await db.schema.createIndex('gear_unit_sheet').on('gear_unit').column('sheet_id').execute();
  await db.schema
    .createTable('photograph')
    .addColumn('id', 'uuid', (c) => c.primaryKey().defaultTo(sql`gen_random_uuid()`))
    .addColumn('serial', 'text', (c) =>
      c.references('gear_unit.serial').onDelete('cascade').onUpdate('cascade'),
    )
    .addColumn('sheet_id', 'text', (c) => c.references('sheet.id').onDelete('cascade'))
    .addColumn('body', 'bytea', (c) => c.notNull().check(sql`octet_length(body) <= 500000`))
    .addColumn('media', 'text', (c) =>
      c.notNull().check(sql`media in ('image/jpeg', 'image/png', 'image/webp')`),
    )
    .addColumn('width', 'integer', (c) => c.notNull().check(sql`width between 1 and 4096`))
    .addColumn('height', 'integer', (c) => c.notNull().check(sql`height between 1 and 4096`))
    .addColumn('added_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .addCheckConstraint('photograph_of_one', sql`(serial is null) <> (sheet_id is null)`)
    .execute();
  await db.schema.createIndex('photograph_serial').on('photograph').column('serial').execute();
  await db.schema.createIndex('photograph_sheet').on('photograph').column('sheet_id').execute();
}
