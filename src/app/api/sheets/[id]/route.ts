import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { listSheets, removeSheet } from '@/server/sheets';

export const dynamic = 'force-dynamic';

export const DELETE = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, null, async () => {
    const gone = await removeSheet(database(), decodeURIComponent((await params).id));
    if (!gone) return problem(404, 'There is no such sheet any more.');
    return Response.json({ sheets: await listSheets(database()) });
  });
