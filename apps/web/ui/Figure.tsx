import Box from '@mui/material/Box';
import type { SystemStyleObject, Theme } from '@mui/system';
import type { ReactNode } from 'react';

/** A figure: digits of one width, slashed zero. Lists have hundreds, so that its look stands in the theme. */
export function Figure({ children, sx }: { children: ReactNode; sx?: SystemStyleObject<Theme> }) {
  if (sx === undefined) return <span className="figure">{children}</span>;
  return (
    <Box component="span" className="figure" sx={sx}>
      {children}
    </Box>
  );
}
