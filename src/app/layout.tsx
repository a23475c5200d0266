import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './globals.css';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Providers } from '@/ui/shell/Providers';

export const metadata: Metadata = {
  title: { default: 'Vistum', template: '%s · Vistum' },
  description: 'Make clear software tutorials from raw recordings.',
};

/** Sets the theme before anything is painted, so that nothing flashes. */
const LAMP = `try{var l=localStorage.getItem('lamp');document.documentElement.dataset.lamp=l||(matchMedia('(prefers-color-scheme: dark)').matches?'off':'on')}catch(e){}`;

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Pages are made for each request: only scripts with the request's nonce may run.
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: LAMP }} />
      </head>
      <body>
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
