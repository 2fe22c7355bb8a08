import { type Kysely, sql } from 'kysely';

/** Words by which a crew sorts its rigs; those that are tagged as templates can be started from. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .alterTable('rig')
    .addColumn('tags', sql`text[]`, (c) =>
      c
        .notNull()
        .defaultTo(sql`'{}'`)
        .check(sql`cardinality(tags) <= 20`),
    )
    .execute();
}
