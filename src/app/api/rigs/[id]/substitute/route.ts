import { z } from 'zod';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { substituteIn } from '@/server/rigs';
import { listSheets } from '@/server/sheets';

export const dynamic = 'force-dynamic';

const schema = z.object({ of: z.string().min(1).max(64), by: z.string().min(1).max(64) });

/** Puts another sheet of the locker in the place of one, in every device of a rig that is of it. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, schema, async (asked) => {
    const sheets = (await listSheets(database())).map((s) => s.sheet);
    const [of, by] = [asked.of, asked.by].map((id) => sheets.find((s) => s.id === id));
    if (!of || !by)
      return problem(404, 'The locker no longer holds both sheets.', {
        detail: 'Reload the page.',
      });
    const { id } = await params;
    const done = await substituteIn(database(), id, of, by);
    return done.ok ? Response.json({ id }) : problem(done.status, done.why);
  });
