import * as z from 'zod';
import { checkRig, freshId, readRig, type Rig } from '@/core/rig';
import { answer, problem, RIG_BYTES } from '@/server/answers';
import { database } from '@/server/database';
import { beforehand } from '@/server/heavy/reports';
import { listRigs } from '@/server/listed';
import { createRig } from '@/server/rigs';

export const dynamic = 'force-dynamic';

export const GET = (request: Request) =>
  answer(request, null, async () => Response.json(await listRigs(database())));

/** A new rig: a document made in the browser, or the text of a file. */
const bodySchema = z.union([
  z.object({ rig: z.unknown(), words: z.string().max(200).optional() }),
  /** `beside`: also where a rig of that name is there already. */
  z.object({ text: z.string(), beside: z.boolean().optional() }),
]);

export const POST = (request: Request) =>
  answer(
    request,
    bodySchema,
    async (body) => {
      const read = 'text' in body ? readRig(body.text) : checkRig(body.rig);
      if (!read.ok)
        return problem(422, 'The file was not imported; nothing was changed.', {
          problems: read.problems,
        });
      const db = database();
      const there =
        'text' in body && !body.beside
          ? (await listRigs(db)).find((r) => r.name === read.value.name && !r.archived)
          : undefined;
      if (there)
        return problem(409, 'A rig of that name is there already; nothing was changed.', { there });
      const words = 'text' in body ? 'imported from a file' : (body.words ?? 'made new');
      let rig: Rig = read.value;
      for (let tries = 0; tries < 5; tries++) {
        if (await createRig(db, rig, words)) {
          void beforehand(db, rig.id).catch(() => undefined);
          return Response.json({ id: rig.id }, { status: 201 });
        }
        rig = {
          ...rig,
          id: freshId(
            rig.id,
            (await listRigs(db)).map((r) => r.id),
          ),
        };
      }
      return problem(409, 'No free id was found for the rig.', { detail: 'Try again.' });
    },
    RIG_BYTES,
  );
