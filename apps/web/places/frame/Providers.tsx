'use client';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import type { ReactNode } from 'react';
import { setZone } from '@/server/dates';
import { theme } from '@/ui/theme';

/** @param zone where the site is, so that a browser elsewhere shows the same days as the server */
export function Providers({ zone, children }: { zone: string | undefined; children: ReactNode }) {
  if (zone !== undefined) setZone(zone);
  return (
    <ThemeProvider theme={theme} defaultMode="light">
      <CssBaseline />
      {children}
    </ThemeProvider>
  );
}
