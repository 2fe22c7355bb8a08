import { answer, bytesOf, problem } from '@/server/answers';
import { database } from '@/server/database';
import { addPhotograph, PHOTOGRAPH_BYTES, shownSchema } from '@/server/photographs';

export const dynamic = 'force-dynamic';

/** Keeps a photograph, which is the body itself, of what the address names: `?is=unit&id=…`. */
export const POST = (request: Request) =>
  answer(request, null, async () => {
    const of = shownSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
    if (!of.success) return problem(422, 'Say what it shows: a unit or a sheet of the locker.');
    const body = await bytesOf(request, PHOTOGRAPH_BYTES);
    if (!body)
      return problem(413, 'That photograph is larger than 500 kB.', {
        detail: 'Make it smaller, and add it again.',
      });
    const done = await addPhotograph(database(), of.data, body);
    return done.ok ? Response.json({}) : problem(done.status, done.why);
  });
