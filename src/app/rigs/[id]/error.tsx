'use client';
import { useParams } from 'next/navigation';
import { TroublePage } from '@/ui/frame/trouble-page';

/** A rig's page that failed: the words, its file, the revision before, another try. */
export default function RigErrorPage({ error, reset }: { error: Error; reset: () => void }) {
  const { id } = useParams<{ id: string }>();
  return (
    <main className="page">
      <TroublePage id={id} words={`Yantrel made a mistake: ${error.message}`} onRetry={reset} />
    </main>
  );
}
