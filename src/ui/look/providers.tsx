'use client';
import { MantineProvider } from '@mantine/core';
import { usePathname, useRouter } from 'next/navigation';
import { type ReactNode, useEffect } from 'react';
import { keepPage } from './keep-page';
import { fetchRest } from './later';
import { theme } from './theme';

/** How long after a page was opened what it may need next is fetched, in ms. */
const SOON_MS = 4000;

/** The look of everything, and what keeps it within reach without a server. */
export function Providers({ children }: { children: ReactNode }) {
  const path = usePathname();
  useEffect(() => {
    // What is in sight comes first.
    const soon = setTimeout(
      // Where the server is away, what is not there yet is asked for when it is used.
      () => void keepPage().catch(() => fetchRest().catch(() => undefined)),
      SOON_MS,
    );
    return () => clearTimeout(soon);
  }, [path]);
  useFreshLists();
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto">
      {children}
    </MantineProvider>
  );
}

/**
 * Whoever comes back by the browser's own keys sees lists as they are now: the page would be shown as
 * it was left. A rig keeps itself up to date.
 */
function useFreshLists(): void {
  const router = useRouter();
  useEffect(() => {
    const look = () => {
      if (!location.pathname.startsWith('/rigs/') && navigator.onLine) router.refresh();
    };
    addEventListener('popstate', look);
    return () => removeEventListener('popstate', look);
  }, [router]);
}
