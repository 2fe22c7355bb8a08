import { sql } from 'kysely';
import * as z from 'zod';
import type { Db } from '../database';

/** The channel of the database on which every server process tells the others. */
export const CHANNEL = 'yantrel';

/** Who has a rig open, and which device is in hand there. `tab` is a name that a page made up. */
export const presenceSchema = z.object({
  tab: z.string().regex(/^[\w-]{8,64}$/),
  name: z.string().trim().max(60),
  device: z.string().max(80).nullable(),
  /** The page was closed. */
  gone: z.boolean().optional(),
});

const newsSchema = z.discriminatedUnion('is', [
  z.object({
    is: z.literal('saved'),
    rig: z.string(),
    revision: z.number(),
    identity: z.string(),
  }),
  z.object({ is: z.literal('archived'), rig: z.string(), archived: z.boolean() }),
  z.object({ is: z.literal('here'), rig: z.string(), presence: presenceSchema }),
]);

/** What is told about a rig: a new revision, that it was put away or brought back, who is there. */
export type News = z.infer<typeof newsSchema>;

/** Tells all server processes; inside a transaction, once it is committed. */
export async function tell(db: Db, news: News): Promise<void> {
  await sql`select pg_notify(${CHANNEL}, ${JSON.stringify(news)})`.execute(db);
}

/** What came over the channel; nothing where it is none of ours. */
export function readNews(payload: string | undefined): News | undefined {
  try {
    const read = newsSchema.safeParse(JSON.parse(payload ?? ''));
    return read.success ? read.data : undefined;
  } catch {
    return undefined;
  }
}
