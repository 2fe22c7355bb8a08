'use client';
import { TroublePage } from '@/ui/frame/trouble-page';

/** A page that failed as a whole: the words, and the ways on. */
export default function ErrorPage({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <main className="page">
      <TroublePage
        id={undefined}
        words={`Yantrel made a mistake: ${error.message}`}
        onRetry={reset}
      />
    </main>
  );
}
