import { type Kysely, sql } from 'kysely';

/**
 * Units of gear that have a serial number, and the devices of rigs in whose place each is used now.
 * Uses follow every save, in the same transaction.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('gear_unit')
    .addColumn('serial', 'text', (c) => c.primaryKey().check(sql`length(serial) between 1 and 120`))
    .addColumn('name', 'text', (c) => c.notNull().check(sql`length(name) between 1 and 120`))
    .addColumn('owner', 'text', (c) =>
      c
        .notNull()
        .defaultTo('')
        .check(sql`length(owner) <= 120`),
    )
    .addColumn('grams', 'double precision', (c) => c.check(sql`grams >= 0`))
    .addColumn('value', 'double precision', (c) => c.check(sql`value >= 0`))
    .addColumn('notes', 'text', (c) => c.notNull().defaultTo(''))
    .execute();
  await db.schema
    .createTable('gear_use')
    .addColumn('rig_id', 'text', (c) => c.notNull().references('rig.id'))
    .addColumn('device_id', 'text', (c) => c.notNull())
    .addColumn('serial', 'text', (c) =>
      c.notNull().references('gear_unit.serial').onUpdate('cascade'),
    )
    .addColumn('device_name', 'text', (c) => c.notNull())
    .addPrimaryKeyConstraint('gear_use_pkey', ['rig_id', 'device_id'])
    .execute();
  await db.schema.createIndex('gear_use_serial').on('gear_use').column('serial').execute();
  // Rigs that were saved before this table was there.
  await sql`with gear as (
      select r.id as rig_id, d->>'id' as device_id, d->>'name' as device_name,
        trim(d#>>'{gear,serial}') as serial, d#>>'{gear,owner}' as owner,
        (d#>>'{gear,grams}')::double precision as grams, (d#>>'{gear,value}')::double precision as value
      from rig r join revision v on v.rig_id = r.id and v.number = r.head, jsonb_array_elements(v.document->'devices') d
      where trim(coalesce(d#>>'{gear,serial}', '')) <> ''
    ), made as (
      insert into gear_unit (serial, name, owner, grams, value)
      select distinct on (serial) serial, device_name, coalesce(owner, ''), grams, value
        from gear order by serial on conflict do nothing
    )
    select 1`.execute(db);
  await sql`insert into gear_use (rig_id, device_id, serial, device_name)
    select r.id, d->>'id', trim(d#>>'{gear,serial}'), d->>'name'
    from rig r join revision v on v.rig_id = r.id and v.number = r.head, jsonb_array_elements(v.document->'devices') d
    where trim(coalesce(d#>>'{gear,serial}', '')) <> ''`.execute(db);
}
