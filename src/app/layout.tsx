import '@fontsource/ibm-plex-sans/400.css';
import '@fontsource/ibm-plex-sans/500.css';
import '@fontsource/ibm-plex-sans/600.css';
import '@fontsource/ibm-plex-sans-condensed/600.css';
import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/500.css';
import '@/ui/theme/tokens.css';
import '@/ui/theme/shell.css';
import '@/ui/theme/stage.css';
import '@/ui/theme/chart.css';
import '@/ui/theme/cabling.css';
import '@/ui/theme/boards.css';
import '@/ui/theme/bundles.css';
import '@/ui/theme/rehearsal.css';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { ThemeRoot } from '@/ui/theme/ThemeRoot';

export const metadata: Metadata = {
  title: 'Knot Path',
  description: 'Which way does each VLAN go, and which way when something breaks?',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <body aria-busy suppressHydrationWarning>
        <InitColorSchemeScript attribute="data" nonce={nonce} />
        <AppRouterCacheProvider options={{ key: 'kp', nonce }}>
          <ThemeRoot>{children}</ThemeRoot>
        </AppRouterCacheProvider>
      </body>
    </html>
  );
}
