import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { UnreadableRevision } from '@/server/stored';
import { goBackTo, listRevisions } from '@/server/rigs';

/** Goes back to the newest revision before the present one that can be read, as a new revision. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, null, async () => {
    const { id } = await params;
    const [, ...earlier] = await listRevisions(database(), id);
    for (const { number } of earlier) {
      try {
        if (await goBackTo(database(), id, number)) return Response.json({ revision: number });
      } catch (error) {
        if (!(error instanceof UnreadableRevision)) throw error;
      }
    }
    return problem(404, 'There is no earlier revision that can be read.', {
      detail: 'Take the file, and send it to whoever looks after Yantrel.',
    });
  });
