import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** Columns side by side on a wide screen, one under the other on a narrow one; each gives way rather than the page. */
export function Columns({
  columns,
  from = 'md',
  children,
}: {
  /** Shares of the width, as CSS has them. */
  columns: string;
  /** The width from which they stand side by side. */
  from?: 'sm' | 'md';
  children: ReactNode;
}) {
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 1.5,
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', [from]: columns },
        alignItems: 'start',
        '& > *': { minWidth: 0 },
      }}
    >
      {children}
    </Box>
  );
}
