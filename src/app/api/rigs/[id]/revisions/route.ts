import { z } from 'zod';
import { checkRig } from '@/core/rig';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { listRevisions, saveRig } from '@/server/rigs';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) =>
  answer(request, null, async () =>
    Response.json(await listRevisions(database(), (await params).id)),
  );

const saveSchema = z.object({
  base: z.number().int().positive(),
  rig: z.unknown(),
  words: z.string().max(2000),
});

/**
 * Saves a document changed from revision `base`: 201 with the new revision, with the merged
 * document where others had saved, or 409 with both sides.
 */
export const POST = (request: Request, { params }: Context) =>
  answer(request, saveSchema, async ({ base, rig, words }) => {
    const { id } = await params;
    const read = checkRig(rig);
    if (!read.ok) return problem(422, 'The rig was not saved.', { problems: read.problems });
    if (read.value.id !== id)
      return problem(422, 'The rig was not saved.', {
        detail: `The document is of the rig "${read.value.id}".`,
      });
    const saved = await saveRig(database(), read.value, base, words);
    switch (saved.outcome) {
      case 'saved':
        return Response.json({ revision: saved.revision }, { status: 201 });
      case 'merged':
        return Response.json({ revision: saved.revision, rig: saved.rig }, { status: 201 });
      case 'missing':
        return problem(404, 'There is no such rig on the server.', {
          detail: 'Export your work as a file, then import it.',
        });
      case 'conflict':
        return problem(409, 'Somebody else changed the same thing.', {
          conflicts: saved.conflicts,
          problems: saved.problems,
          theirs: saved.theirs,
        });
    }
  });
