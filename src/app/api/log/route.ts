import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { linesOfUnit } from '@/server/logbook';

export const dynamic = 'force-dynamic';

/** Lines about one unit in all rigs, by its serial number. */
export const GET = (request: Request) =>
  answer(request, null, async () => {
    const serial = new URL(request.url).searchParams.get('serial');
    if (!serial) return problem(400, 'Say which unit: ?serial=…');
    return Response.json({ lines: await linesOfUnit(database(), serial) });
  });
