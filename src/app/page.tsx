import { isAway } from '@/server/answers';
import { database } from '@/server/database';
import { beforehand } from '@/server/heavy/reports';
import { listRigs } from '@/server/listed';
import { RigList } from '@/ui/rigs/rig-list';

export const dynamic = 'force-dynamic';

/** So many rigs are judged for one look at the list. */
const AT_ONCE = 4;

const AWAY =
  'The database is away, so the list cannot be read. Rigs that were open in this browser can still ' +
  'be worked on.';

export default async function RigsPage() {
  try {
    const db = database();
    const rigs = await listRigs(db);
    // What was never judged is, while nobody waits: the next look at the list has it.
    const unjudged = rigs.filter((r) => !r.open && !r.archived).slice(0, AT_ONCE);
    for (const { id } of unjudged) void beforehand(db, id).catch(() => undefined);
    return <RigList rigs={rigs} problem={null} />;
  } catch (error) {
    if (!isAway(error)) throw error;
    return <RigList rigs={[]} problem={AWAY} />;
  }
}
