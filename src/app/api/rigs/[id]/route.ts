import * as z from 'zod';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { renameRig } from '@/server/change-rig';
import { archiveRig, loadRig, tagRig } from '@/server/rigs';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };
const missing = () =>
  problem(404, 'There is no such rig.', { detail: 'Go back to the list of rigs.' });

export const GET = (request: Request, { params }: Context) =>
  answer(request, null, async () => {
    const saved = await loadRig(database(), (await params).id);
    return saved ? Response.json(saved) : missing();
  });

const changeSchema = z.union([
  z.object({ name: z.string().trim().min(1).max(120) }),
  z.object({ archived: z.boolean() }),
  z.object({ tags: z.array(z.string().trim().min(1).max(40)).max(20) }),
]);

export const PATCH = (request: Request, { params }: Context) =>
  answer(request, changeSchema, async (change) => {
    const { id } = await params;
    if ('archived' in change)
      return (await archiveRig(database(), id, change.archived))
        ? Response.json({ id })
        : missing();
    if ('tags' in change)
      return (await tagRig(database(), id, change.tags)) ? Response.json({ id }) : missing();
    const renamed = await renameRig(database(), id, change.name);
    return renamed.ok ? Response.json({ id }) : problem(renamed.status, renamed.why);
  });
