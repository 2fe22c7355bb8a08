'use client';
import type { ReactNode } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { TroublePage } from './trouble-page';

const wordsOf = (error: unknown): string =>
  `Yantrel made a mistake here: ${error instanceof Error ? error.message : String(error)}`;

/** Keeps a mistake in one view from taking the others with it; `part` names what is looked at. */
export function Contained({
  id,
  part,
  children,
}: {
  id: string;
  part: string;
  children: ReactNode;
}) {
  return (
    <ErrorBoundary
      resetKeys={[part]}
      fallbackRender={({ error, resetErrorBoundary }) => (
        <TroublePage id={id} words={wordsOf(error)} onRetry={resetErrorBoundary} />
      )}
    >
      {children}
    </ErrorBoundary>
  );
}
