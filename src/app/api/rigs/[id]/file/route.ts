import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { listRevisions, loadRaw } from '@/server/rigs';

export const dynamic = 'force-dynamic';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, null, async () => {
    const { id } = await params;
    const [head] = await listRevisions(database(), id, { limit: 1 });
    // As it is stored: a revision that this program cannot read can still be taken away.
    const document = head && (await loadRaw(database(), id, head.number));
    if (!document) return problem(404, 'There is no such rig.');
    return new Response(`${JSON.stringify(document, null, 2)}\n`, {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': `attachment; filename="${id}.yantrel.json"`,
      },
    });
  });
