import * as z from 'zod';
import { kindIdOf } from '@/core/rig';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { lockerThings } from '@/server/exchange';
import { substituteIn } from '@/server/change-rig';

export const dynamic = 'force-dynamic';

const id = z.string().min(1).max(200);
const schema = z.object({
  of: z.discriminatedUnion('is', [
    z.object({ is: z.literal('sheet'), id }),
    z.object({ is: z.literal('unit'), serial: id }),
  ]),
  by: z.discriminatedUnion('is', [
    z.object({ is: z.literal('sheet'), id }),
    z.object({ is: z.literal('kind'), kind: id }),
    z.object({ is: z.literal('unit'), serial: id }),
  ]),
  /** The revision on which it was tried, and what the sheet said that was tried in it. */
  tried: id,
  says: id.nullable(),
});

/** Puts a sheet, a unit or a shipped kind in the place of a sheet's or a unit's devices in a rig. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, schema, async ({ of, by, tried, says }) => {
    const things = await lockerThings(database(), of, by);
    if (!things)
      return problem(404, 'The locker no longer holds both.', { detail: 'Reload the page.' });
    const { sheet } = things;
    if ((sheet ? kindIdOf(sheet) : null) !== says)
      return problem(409, `Somebody has changed ${things.name} in the locker since it was tried.`, {
        detail: 'Reload the page, and try it again.',
      });
    const rig = (await params).id;
    const words = `put ${things.name} in the place of ${things.was}`;
    const done = await substituteIn(database(), rig, [of, things.by], tried, words);
    return done.ok ? Response.json({ id: rig }) : problem(done.status, done.why);
  });
