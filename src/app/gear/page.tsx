import { isAway } from '@/server/answers';
import { database } from '@/server/database';
import { listGear } from '@/server/gear';
import { GearLocker } from '@/ui/gear/gear-locker';

export const dynamic = 'force-dynamic';

export default async function GearPage({
  searchParams,
}: {
  searchParams: Promise<{ find?: string | string[] }>;
}) {
  const { find } = await searchParams;
  const wanted = typeof find === 'string' ? find : '';
  try {
    return (
      <GearLocker key={wanted} find={wanted} units={await listGear(database())} problem={null} />
    );
  } catch (error) {
    if (!isAway(error)) throw error;
    return (
      <GearLocker
        key={wanted}
        find={wanted}
        units={[]}
        problem="The database is away, so the locker cannot be read. Try again when it is back."
      />
    );
  }
}
