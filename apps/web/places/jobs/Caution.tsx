import Alert from '@mui/material/Alert';
import type { ReactNode } from 'react';

/** A caution of usual practice. Barys reminds; it never grants permission. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <Alert severity="warning" variant="outlined" sx={{ color: 'text.primary', alignItems: 'center' }}>
      {children}
    </Alert>
  );
}

export const SITE_RULES_FIRST = 'Permits, local codes and licensed practice come first; Barys only reminds.';
