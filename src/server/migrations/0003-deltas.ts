import { type Kysely, sql } from 'kysely';

/**
 * A revision is a whole document, or what changed since the one before. Each has an unguessable
 * identity, so that a database which was set back is noticed, and says who saved it. Revisions may
 * have names. The list of rigs needs no documents.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .alterTable('revision')
    .addColumn('identity', 'uuid', (c) => c.notNull().defaultTo(sql`gen_random_uuid()`))
    .addColumn('saved_by', 'text')
    .addColumn('delta', 'jsonb')
    .alterColumn('document', (c) => c.dropNotNull())
    .execute();
  await sql`alter table revision add constraint whole_or_delta
    check ((document is null) <> (delta is null))`.execute(db);
  await db.schema
    .createIndex('revision_identity')
    .on('revision')
    .columns(['rig_id', 'identity'])
    .unique()
    .execute();
  await sql`create index revision_whole on revision (rig_id, number) where document is not null`.execute(
    db,
  );
  await db.schema
    .createTable('revision_name')
    .addColumn('rig_id', 'text', (c) => c.notNull())
    .addColumn('number', 'integer', (c) => c.notNull())
    .addColumn('name', 'text', (c) => c.notNull().check(sql`length(name) between 1 and 120`))
    .addPrimaryKeyConstraint('revision_name_pkey', ['rig_id', 'number'])
    .addForeignKeyConstraint('revision_name_of', ['rig_id', 'number'], 'revision', [
      'rig_id',
      'number',
    ])
    .execute();
  await db.schema
    .alterTable('rig')
    .addColumn('devices', 'integer', (c) => c.notNull().defaultTo(0))
    .addColumn('sounds', 'integer', (c) => c.notNull().defaultTo(0))
    .execute();
  await sql`update rig set
    devices = jsonb_array_length(r.document->'devices'), sounds = jsonb_array_length(r.document->'sounds')
    from revision r where r.rig_id = rig.id and r.number = rig.head
      and jsonb_typeof(r.document->'devices') = 'array' and jsonb_typeof(r.document->'sounds') = 'array'`.execute(
    db,
  );
}
