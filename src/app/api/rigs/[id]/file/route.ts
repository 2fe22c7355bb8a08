import { writeRig } from '@/core/rig';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { loadRig } from '@/server/rigs';

export const dynamic = 'force-dynamic';

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, null, async () => {
    const saved = await loadRig(database(), (await params).id);
    if (!saved) return problem(404, 'There is no such rig.');
    return new Response(writeRig(saved.rig), {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': `attachment; filename="${saved.rig.id}.yantrel.json"`,
      },
    });
  });
