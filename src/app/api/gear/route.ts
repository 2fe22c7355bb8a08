import { answer } from '@/server/answers';
import { database } from '@/server/database';
import { gearUnitSchema, listGear, putGear } from '@/server/gear';

export const dynamic = 'force-dynamic';

export const GET = (request: Request) =>
  answer(request, null, async () => Response.json({ units: await listGear(database()) }));

export const PUT = (request: Request) =>
  answer(request, gearUnitSchema, async (unit) => {
    await putGear(database(), unit);
    return Response.json({ units: await listGear(database()) });
  });
