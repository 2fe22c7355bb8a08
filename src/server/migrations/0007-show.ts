import { type Kysely, sql } from 'kysely';

/**
 * What a crew writes down beside a rig: shows, lines of the logbook with what they are about, ticks of
 * the line check, odds that somebody set. Nothing is taken out: what is gone is marked so.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('show')
    .addColumn('id', 'text', (c) => c.primaryKey().check(sql`length(id) between 1 and 64`))
    .addColumn('rig_id', 'text', (c) => c.notNull().references('rig.id'))
    .addColumn('date', 'date', (c) => c.notNull())
    .addColumn('venue', 'text', (c) => c.notNull())
    .addColumn('body', 'jsonb', (c) => c.notNull())
    .addColumn('gone', 'boolean', (c) => c.notNull().defaultTo(false))
    .execute();
  await db.schema.createIndex('show_date').on('show').columns(['date', 'rig_id']).execute();
  await db.schema
    .createTable('log_line')
    .addColumn('id', 'text', (c) => c.primaryKey().check(sql`length(id) between 1 and 64`))
    .addColumn('rig_id', 'text', (c) => c.notNull().references('rig.id'))
    .addColumn('at', 'timestamptz', (c) => c.notNull())
    .addColumn('sort', 'text', (c) => c.notNull())
    .addColumn('body', 'jsonb', (c) => c.notNull())
    .addColumn('gone', 'boolean', (c) => c.notNull().defaultTo(false))
    .execute();
  await db.schema.createIndex('log_line_at').on('log_line').columns(['rig_id', 'at']).execute();
  await db.schema
    .createTable('log_link')
    .addColumn('line_id', 'text', (c) => c.notNull().references('log_line.id').onDelete('cascade'))
    .addColumn('is', 'text', (c) => c.notNull())
    .addColumn('thing', 'text', (c) => c.notNull())
    .addColumn('serial', 'text')
    .addPrimaryKeyConstraint('log_link_pkey', ['line_id', 'is', 'thing'])
    .execute();
  await db.schema.createIndex('log_link_serial').on('log_link').column('serial').execute();
  await db.schema
    .createTable('check_tick')
    .addColumn('id', 'text', (c) => c.primaryKey().check(sql`length(id) between 1 and 64`))
    .addColumn('rig_id', 'text', (c) => c.notNull().references('rig.id'))
    .addColumn('body', 'jsonb', (c) => c.notNull())
    .execute();
  await db.schema
    .createTable('fault_odds')
    .addColumn('id', 'text', (c) => c.primaryKey().check(sql`length(id) between 1 and 64`))
    .addColumn('rig_id', 'text', (c) => c.notNull().references('rig.id'))
    .addColumn('body', 'jsonb', (c) => c.notNull())
    .execute();
  await db.schema.createIndex('fault_odds_rig').on('fault_odds').column('rig_id').execute();
  await db.schema.createIndex('check_tick_rig').on('check_tick').column('rig_id').execute();
}
