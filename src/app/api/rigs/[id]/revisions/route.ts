import * as z from 'zod';
import { checkRig, cutText } from '@/core/rig';
import { answer, problem, RIG_BYTES } from '@/server/answers';
import { database } from '@/server/database';
import {
  answeredBeforehand,
  changedFrom,
  listRevisions,
  saveRig,
  type SaveResult,
} from '@/server/rigs';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };

const day = z.iso.date().transform((d) => new Date(d));
const searchSchema = z.object({
  before: z.coerce.number().int().positive().max(2_147_483_647).optional(),
  words: z.string().max(200).optional(),
  from: day.optional(),
  until: day.optional(),
});

/** The revisions of a rig, newest first; `before`, `words`, `from` and `until` narrow them. */
export const GET = (request: Request, { params }: Context) =>
  answer(request, null, async () => {
    const search = searchSchema.safeParse(
      Object.fromEntries([...new URL(request.url).searchParams].filter(([, v]) => v !== '')),
    );
    return search.success
      ? Response.json(await listRevisions(database(), (await params).id, search.data))
      : problem(400, 'That cannot be searched for.', {
          detail: 'Give days as 2026-11-26, and numbers of revisions.',
        });
  });

const saveSchema = z.object({
  base: z.uuid(),
  identity: z.uuid(),
  rig: z.unknown(),
  words: z.string(),
  by: z.string().max(60).nullable(),
});

/**
 * Saves a document that was changed from the revision `base` as the revision `identity`: 201 with
 * its number, and the newest revision where others have saved after it. 409 with the newest where
 * others have saved since `base` (`behind`), or where no revision is known by that identity
 * (`unknown base`): then nothing was written.
 */
export const POST = (request: Request, { params }: Context) =>
  answer(
    request,
    saveSchema,
    async ({ rig, words, ...rest }) => {
      const { id } = await params;
      const early = await answeredBeforehand(database(), { id, ...rest });
      if (early) return told(early);
      const read = checkRig(changedFrom(rest.base, rig));
      if (!read.ok) return problem(422, 'The rig was not saved.', { problems: read.problems });
      if (read.value.id !== id)
        return problem(422, 'The rig was not saved.', {
          detail: `The document is of the rig "${read.value.id}".`,
        });
      const save = { ...rest, rig: read.value, words: cutText(words, 2000) };
      return told(await saveRig(database(), save));
    },
    RIG_BYTES,
  );

function told(saved: SaveResult): Response {
  switch (saved.outcome) {
    case 'saved':
      return Response.json(saved, { status: 201 });
    case 'missing':
      return problem(404, 'There is no such rig on the server.', {
        detail: 'Export your work as a file, then import it.',
      });
    default:
      return problem(409, 'Others have saved since.', saved);
  }
}
