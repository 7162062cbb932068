import Paper from '@mui/material/Paper';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { SystemStyleObject, Theme } from '@mui/system';
import type { ReactNode } from 'react';

/** A white sheet with its heading and, at the right, a word about it. */
export function Sheet({
  title,
  aside,
  children,
  sx,
}: {
  title?: string;
  aside?: ReactNode;
  children: ReactNode;
  sx?: SystemStyleObject<Theme>;
}) {
  return (
    <Paper
      component="section"
      aria-label={title}
      variant="outlined"
      sx={{ p: 2, borderColor: 'var(--rule)', minWidth: 0, ...sx }}
    >
      {title !== undefined && (
        <Stack
          direction="row"
          sx={{ justifyContent: 'space-between', alignItems: 'baseline', gap: 2, mb: 1 }}
        >
          <Typography variant="h2">{title}</Typography>
          {aside !== undefined && (
            <Typography variant="body2" component="div" sx={{ color: 'text.secondary' }}>
              {aside}
            </Typography>
          )}
        </Stack>
      )}
      {children}
    </Paper>
  );
}
