import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { isAway } from '@/server/answers';
import { database } from '@/server/database';
import { reportToShow } from '@/server/heavy/reports';
import { loadRig } from '@/server/rigs';
import { UnreadableRevision } from '@/server/stored';
import { TroublePage } from '@/ui/frame/trouble-page';
import { RigApp } from '@/ui/frame/rig-app';

export const dynamic = 'force-dynamic';

/**
 * From this many devices times sounds, the page brings the figures of the first sound only; the
 * worker gives the others.
 */
const MUCH = 600;

/** Opens a rig with its figures, so that it can be read before any script runs. */
export default async function RigLayout({
  params,
  children,
}: {
  params: Promise<{ id: string }>;
  children: ReactNode;
}) {
  const { id } = await params;
  let saved: Awaited<ReturnType<typeof loadRig>>;
  try {
    saved = await loadRig(database(), id);
  } catch (error) {
    if (error instanceof UnreadableRevision)
      return (
        <main className="page">
          <TroublePage id={id} words={error.message} />
        </main>
      );
    if (!isAway(error)) throw error;
    return (
      <RigApp id={id} opened={null} problem="The database is away.">
        {children}
      </RigApp>
    );
  }
  if (!saved) notFound();
  const { report, isCurrent } = await reportToShow(database(), saved);
  const { sounds, promises, findings } = report;
  return (
    <RigApp
      id={id}
      opened={{
        head: {
          rig: saved.rig,
          revision: saved.revision,
          identity: saved.identity,
          words: saved.words,
          ...(saved.by !== null && { by: saved.by }),
        },
        report: {
          sounds: sounds.slice(
            0,
            saved.rig.devices.length * saved.rig.sounds.length > MUCH ? 1 : undefined,
          ),
          promises,
          findings,
        },
        isCurrent,
      }}
      problem={null}
    >
      {children}
    </RigApp>
  );
}
