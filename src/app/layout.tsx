import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource/zilla-slab/500.css';
import '@fontsource/zilla-slab/600.css';
import './globals.css';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Providers } from '@/ui/providers';

export const metadata: Metadata = {
  title: 'zealous grain',
  description: 'Plans relief carving, and proves it before the board is cut.',
};

/** Sets the chosen theme before the first paint. */
const THEME = `try{var t=localStorage.getItem('theme');if(t)document.documentElement.dataset.theme=t}catch(e){}`;

/** Rendered for each request: its scripts carry the nonce that the proxy has made for it. */
export default async function Layout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: a constant of ours */}
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: THEME }} />
      </head>
      <body className="bg-base-200 text-base-content">
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
