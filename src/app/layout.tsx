import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './globals.css';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { Providers } from '@/ui/shell/Providers';

export const metadata: Metadata = {
  title: 'Vistum',
  description: 'Make clear software tutorials from raw recordings.',
};

/** Sets the theme before anything is painted, so that nothing flashes. */
const LAMP = `try{var l=localStorage.getItem('lamp');document.documentElement.dataset.lamp=l||(matchMedia('(prefers-color-scheme: dark)').matches?'off':'on')}catch(e){}`;

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <script dangerouslySetInnerHTML={{ __html: LAMP }} />
      </head>
      <body>
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
