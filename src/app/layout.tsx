import '@fontsource-variable/atkinson-hyperlegible-next';
import '@mantine/core/styles.css';
import '@mantine/spotlight/styles.css';
import '@/ui/look/sheet.css';
import '@/ui/brief/brief.css';
import '@/ui/build/build.css';
import '@/ui/control/control.css';
import '@/ui/frame/frame.css';
import '@/ui/gear/gear.css';
import '@/ui/history/history.css';
import '@/ui/rigs/rigs.css';
import '@/ui/signal/signal.css';
import '@/ui/songs/songs.css';
import '@/ui/sounds/sounds.css';
import '@/ui/look/narrow.css';
import { ColorSchemeScript, mantineHtmlProps } from '@mantine/core';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Providers } from '@/ui/look/providers';

export const metadata: Metadata = {
  title: 'Yantrel',
  description: 'Designs, checks and documents touring guitar rigs.',
};

/** Every page is made for its request: its scripts carry the nonce that the answer's policy names. */
export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" {...mantineHtmlProps}>
      <head>
        <ColorSchemeScript defaultColorScheme="auto" nonce={nonce} />
      </head>
      <body>
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
