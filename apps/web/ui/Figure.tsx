import Box from '@mui/material/Box';
import type { SystemStyleObject, Theme } from '@mui/system';
import type { ReactNode } from 'react';

/** A figure: digits of one width, slashed zero. */
export function Figure({ children, sx }: { children: ReactNode; sx?: SystemStyleObject<Theme> }) {
  return (
    <Box
      component="span"
      sx={{ fontFamily: '"Atkinson Hyperlegible Mono Variable", monospace', whiteSpace: 'nowrap', ...sx }}
    >
      {children}
    </Box>
  );
}
