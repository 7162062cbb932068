import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** A few words that a line does not part; on a phone it may, where what stands beside them has to stay in sight. */
export function Whole({
  children,
  mayBreakOnPhone = false,
}: {
  children: ReactNode;
  mayBreakOnPhone?: boolean;
}) {
  return (
    <Box component="span" sx={{ whiteSpace: { xs: mayBreakOnPhone ? 'normal' : 'nowrap', sm: 'nowrap' } }}>
      {children}
    </Box>
  );
}
