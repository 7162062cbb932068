import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** A wide table scrolls in its own frame, also by keyboard. */
export function Scroller({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label={label}>
      {children}
    </Box>
  );
}
