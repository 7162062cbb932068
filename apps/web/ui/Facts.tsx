import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

/** A list of facts: what, and its value. */
export function Facts({ facts }: { facts: readonly (readonly [what: string, value: ReactNode])[] }) {
  return (
    <Stack component="dl" sx={{ m: 0, gap: 0.5 }}>
      {facts.map(([what, value]) => (
        <Stack key={what} direction="row" sx={{ gap: 1.5 }}>
          <Typography
            component="dt"
            variant="body2"
            sx={{ color: 'text.secondary', width: 118, flexShrink: 0 }}
          >
            {what}
          </Typography>
          <Typography component="dd" variant="body2" sx={{ m: 0 }}>
            {value}
          </Typography>
        </Stack>
      ))}
    </Stack>
  );
}
