'use client';
import { MantineProvider } from '@mantine/core';
import { usePathname } from 'next/navigation';
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
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto">
      {children}
    </MantineProvider>
  );
}
