'use client';
import { ThemeProvider } from '@mui/material/styles';
import { useEffect } from 'react';
import type { ReactNode } from 'react';
import { theme } from './theme';

/** The theme follows the system until the engineer chooses one. */
export function ThemeRoot({ children }: { children: ReactNode }) {
  // The page is there before it listens: until then it says that it is busy.
  useEffect(() => document.body.setAttribute('aria-busy', 'false'), []);
  return (
    <ThemeProvider theme={theme} defaultMode="system">
      {children}
    </ThemeProvider>
  );
}
