import * as z from 'zod';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { loadRevision, nameRevision } from '@/server/rigs';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string; number: string }> };
const numberOf = (text: string) => (/^\d{1,9}$/.test(text) ? Number(text) : 0);
const missing = () => problem(404, 'There is no such revision.');

export const GET = (request: Request, { params }: Context) =>
  answer(request, null, async () => {
    const { id, number } = await params;
    const rig = await loadRevision(database(), id, numberOf(number));
    return rig ? Response.json(rig) : missing();
  });

const nameSchema = z.object({ name: z.string().trim().min(1).max(120).nullable() });

/** Gives a revision a name, or takes it away. */
export const PATCH = (request: Request, { params }: Context) =>
  answer(request, nameSchema, async ({ name }) => {
    const { id, number } = await params;
    return (await nameRevision(database(), id, numberOf(number), name))
      ? Response.json({ number: numberOf(number), name })
      : missing();
  });
