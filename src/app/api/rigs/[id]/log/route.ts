import { answer, problem, RIG_BYTES } from '@/server/answers';
import { database } from '@/server/database';
import { bookOf, changesSchema, doubleBooked, keepChanges } from '@/server/logbook';
import { hasRig } from '@/server/rigs';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };

const NO_RIG = 'There is no such rig any more.';

/** Shows, lines of the logbook and ticks of a rig, and units that another rig wants on the same day. */
async function whole(rig: string) {
  const db = database();
  const [book, double] = await Promise.all([bookOf(db, rig), doubleBooked(db, rig)]);
  return { book, double };
}

export const GET = (request: Request, { params }: Context) =>
  answer(request, null, async () => {
    const { id } = await params;
    if (!(await hasRig(database(), id))) return problem(404, NO_RIG);
    return Response.json(await whole(id));
  });

export const POST = (request: Request, { params }: Context) =>
  answer(
    request,
    changesSchema,
    async ({ changes }) => {
      const { id } = await params;
      if (!(await hasRig(database(), id))) return problem(404, NO_RIG);
      const kept = await keepChanges(database(), id, changes);
      return Response.json({ ...kept, ...(await whole(id)) });
    },
    RIG_BYTES,
  );
