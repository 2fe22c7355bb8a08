import { isAway } from '@/server/answers';
import { database } from '@/server/database';
import { listRigs } from '@/server/rigs';
import { RigList } from '@/ui/rigs/rig-list';

export const dynamic = 'force-dynamic';

const AWAY =
  'The database is away, so the list cannot be read. Rigs that were open in this browser can still ' +
  'be worked on.';

export default async function RigsPage() {
  try {
    return <RigList rigs={await listRigs(database())} problem={null} />;
  } catch (error) {
    if (!isAway(error)) throw error;
    return <RigList rigs={[]} problem={AWAY} />;
  }
}
