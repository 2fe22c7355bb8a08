'use client';
import { MantineProvider } from '@mantine/core';
import { usePathname } from 'next/navigation';
import { type ReactNode, useEffect } from 'react';
import { theme } from './theme';

/** Has the page, as it is now, and its scripts kept, so that it opens again while the server is away. */
async function keepPage(): Promise<void> {
  await navigator.serviceWorker.register('/offline.js');
  const { active } = await navigator.serviceWorker.ready;
  const scripts = performance
    .getEntriesByType('resource')
    .map((e) => e.name)
    .filter((url) => new URL(url).pathname.startsWith('/_next/static/'));
  active?.postMessage({ page: window.location.href, scripts });
}

/** The look of everything, and what keeps it within reach without a server. */
export function Providers({ children }: { children: ReactNode }) {
  const path = usePathname();
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return;
    // Scripts that a view fetches late are there a little after it.
    const soon = setTimeout(() => void keepPage().catch(() => undefined), 1500);
    return () => clearTimeout(soon);
  }, [path]);
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto">
      {children}
    </MantineProvider>
  );
}
