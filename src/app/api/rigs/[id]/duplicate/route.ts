import { cutText, freshId } from '@/core/rig';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { listRigs } from '@/server/listed';
import { createRig, loadRig } from '@/server/rigs';

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, null, async () => {
    const db = database();
    const saved = await loadRig(db, (await params).id);
    if (!saved) return problem(404, 'There is no such rig.');
    const name = `${cutText(saved.rig.name, 112)} (copy)`;
    // Somebody else may take the id between looking and writing; then another one is looked for.
    for (let tries = 0; tries < 5; tries++) {
      const taken = (await listRigs(db)).map((r) => r.id);
      const id = freshId(name, taken);
      if (await createRig(db, { ...saved.rig, id, name }, `copied from ${saved.rig.name}`))
        return Response.json({ id }, { status: 201 });
    }
    return problem(409, 'No free id was found for the copy; nothing was copied.', {
      detail: 'Try again.',
    });
  });
