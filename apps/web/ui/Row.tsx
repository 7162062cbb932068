import Stack from '@mui/material/Stack';
import type { ReactNode } from 'react';

/** Fields side by side on a wide screen, one below the other on a phone. */
export function Row({ children }: { children: ReactNode }) {
  return <Stack sx={{ gap: 1.5, flexDirection: { xs: 'column', sm: 'row' } }}>{children}</Stack>;
}
