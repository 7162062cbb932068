import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

/** The name of a page, what it is about, and what can be done there. */
export function PageHead({
  title,
  about,
  children,
}: {
  title: ReactNode;
  about?: ReactNode;
  children?: ReactNode;
}) {
  return (
    <Stack
      direction="row"
      sx={{ alignItems: 'flex-start', columnGap: 3, rowGap: 1, flexWrap: 'wrap', mb: 1.5 }}
    >
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h1">{title}</Typography>
        {about !== undefined && (
          <Typography component="div" sx={{ color: 'text.secondary' }}>
            {about}
          </Typography>
        )}
      </Box>
      {children !== undefined && (
        <Stack
          direction="row"
          sx={{
            ml: { md: 'auto' },
            gap: 1,
            flexWrap: 'wrap',
            alignItems: 'flex-start',
            displayPrint: 'none',
          }}
        >
          {children}
        </Stack>
      )}
    </Stack>
  );
}
