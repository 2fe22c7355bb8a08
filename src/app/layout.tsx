import '@fontsource-variable/atkinson-hyperlegible-next';
import '@mantine/core/styles.css';
import '@mantine/spotlight/styles.css';
import '@/ui/look/sheet.css';
import { ColorSchemeScript, mantineHtmlProps } from '@mantine/core';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { Providers } from '@/ui/look/providers';

export const metadata: Metadata = {
  title: 'Yantrel',
  description: 'Designs, checks and documents touring guitar rigs.',
};

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" {...mantineHtmlProps}>
      <head>
        <ColorSchemeScript defaultColorScheme="auto" />
      </head>
      <body>
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
