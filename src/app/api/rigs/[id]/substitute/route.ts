import { z } from 'zod';
import { kindIdOf } from '@/core/rig';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { substituteIn } from '@/server/rigs';
import { listSheets } from '@/server/sheets';

export const dynamic = 'force-dynamic';

const schema = z.object({
  of: z.string().min(1).max(64),
  by: z.string().min(1).max(64),
  /** The revision on which it was tried, and the kind that was tried in it. */
  tried: z.string().min(1).max(64),
  kind: z.string().min(1).max(200),
});

/** Puts another sheet of the locker in the place of one, in every device of a rig that is of it. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, schema, async (asked) => {
    const sheets = (await listSheets(database())).map((s) => s.sheet);
    const [of, by] = [asked.of, asked.by].map((id) => sheets.find((s) => s.id === id));
    if (!of || !by)
      return problem(404, 'The locker no longer holds both sheets.', {
        detail: 'Reload the page.',
      });
    if (kindIdOf(by) !== asked.kind)
      return problem(409, `Somebody has changed ${by.name} in the locker since it was tried.`, {
        detail: 'Reload the page, and try it again.',
      });
    const { id } = await params;
    const done = await substituteIn(database(), id, [of, by], asked.tried);
    return done.ok ? Response.json({ id }) : problem(done.status, done.why);
  });
