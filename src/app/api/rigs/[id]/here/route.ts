import { answer } from '@/server/answers';
import { database } from '@/server/database';
import { presenceSchema, tell } from '@/server/live/telling';

/** Tells everybody who has the rig open that this page is there, and what it has in hand. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, presenceSchema, async (presence) => {
    await tell(database(), { is: 'here', rig: (await params).id, presence });
    return Response.json({});
  });
