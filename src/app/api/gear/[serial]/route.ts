import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { listGear, removeGear } from '@/server/gear';
import { allOf } from '../../../../core/units';

export const dynamic = 'force-dynamic';

export const DELETE = (request: Request, { params }: { params: Promise<{ serial: string }> }) =>
  answer(request, null, async () => {
    const { removed, usedIn } = await removeGear(
      database(),
      decodeURIComponent((await params).serial),
    );
    if (usedIn.length)
      return problem(409, `It is used in ${allOf(usedIn)}.`, {
        detail: 'Take its serial number off the device there first.',
      });
    if (!removed) return problem(404, 'There is no such unit any more.');
    return Response.json({ units: await listGear(database()) });
  });
