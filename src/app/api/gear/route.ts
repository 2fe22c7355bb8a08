import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { gearUnitSchema, listGear, putGear } from '@/server/gear';

export const dynamic = 'force-dynamic';

export const GET = (request: Request) =>
  answer(request, null, async () => Response.json({ units: await listGear(database()) }));

export const PUT = (request: Request) =>
  answer(request, gearUnitSchema, async (unit) => {
    if (!(await putGear(database(), unit)))
      return problem(409, 'The locker no longer holds that sheet.', { detail: 'Reload the page.' });
    return Response.json({ units: await listGear(database()) });
  });
