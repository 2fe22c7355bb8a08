'use client';
import { MantineProvider } from '@mantine/core';
import type { ReactNode } from 'react';
import { useEffect } from 'react';
import { theme } from './theme';

/** The look of everything, and the service worker that opens Yantrel again while the server is away. */
export function Providers({ children }: { children: ReactNode }) {
  useEffect(() => {
    navigator.serviceWorker?.register('/offline.js').catch(() => undefined);
  }, []);
  return <MantineProvider theme={theme} defaultColorScheme="auto">{children}</MantineProvider>;
}
