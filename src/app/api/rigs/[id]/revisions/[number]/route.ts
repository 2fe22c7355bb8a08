import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { loadRevision } from '@/server/rigs';

export const dynamic = 'force-dynamic';

export const GET = (
  request: Request,
  { params }: { params: Promise<{ id: string; number: string }> },
) =>
  answer(request, null, async () => {
    const { id, number } = await params;
    const rig = /^\d{1,9}$/.test(number)
      ? await loadRevision(database(), id, Number(number))
      : undefined;
    return rig ? Response.json(rig) : problem(404, 'There is no such revision.');
  });
