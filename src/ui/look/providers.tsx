'use client';
import { MantineProvider } from '@mantine/core';
import { usePathname, useRouter } from 'next/navigation';
import { type ReactNode, useEffect } from 'react';
import { keepPage } from './keep-page';
import { theme } from './theme';

/** The look of everything, and what keeps it within reach without a server. */
export function Providers({ children }: { children: ReactNode }) {
  const path = usePathname();
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return;
    // Scripts that a view fetches late are there a little after it.
    const soon = setTimeout(() => void keepPage().catch(() => undefined), 1500);
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
