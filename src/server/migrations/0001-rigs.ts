import { type Kysely, sql } from 'kysely';

/** Rigs and their revisions. A revision is never changed or removed, which a trigger sees to. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('rig')
    .addColumn('id', 'text', (c) =>
      c.primaryKey().check(sql`id ~ '^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$'`),
    )
    .addColumn('name', 'text', (c) => c.notNull().check(sql`length(name) between 1 and 120`))
    .addColumn('head', 'integer', (c) => c.notNull().check(sql`head > 0`))
    .addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .addColumn('changed_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .addColumn('archived_at', 'timestamptz')
    .execute();
  await db.schema
    .createTable('revision')
    .addColumn('rig_id', 'text', (c) => c.notNull().references('rig.id'))
    .addColumn('number', 'integer', (c) => c.notNull().check(sql`number > 0`))
    .addColumn('based_on', 'integer')
    .addColumn('words', 'text', (c) => c.notNull())
    .addColumn('document', 'jsonb', (c) =>
      c.notNull().check(sql`document->>'format' = 'yantrel-rig'`),
    )
    .addColumn('saved_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
    .addPrimaryKeyConstraint('revision_pkey', ['rig_id', 'number'])
    .execute();
  await sql`create function revisions_are_kept() returns trigger language plpgsql as
    $$ begin raise exception 'revisions are kept as they were saved'; end $$`.execute(db);
  await sql`create trigger revision_kept before update or delete on revision
    for each row execute function revisions_are_kept()`.execute(db);
}
