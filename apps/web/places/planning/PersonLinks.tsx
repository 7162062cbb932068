'use client';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Link from 'next/link';

/** Whose plan is shown. */
export function PersonLinks({
  links,
}: {
  links: readonly { readonly name: string; readonly href: string; readonly isHere: boolean }[];
}) {
  return (
    <Stack
      component="nav"
      aria-label="Whose"
      direction="row"
      sx={{ flexWrap: 'wrap', mb: 1, displayPrint: 'none' }}
    >
      {links.map(({ name, href, isHere }) => (
        <Box
          key={href}
          component={Link}
          href={href}
          prefetch={false}
          aria-current={isHere ? 'true' : undefined}
          sx={{
            px: 1,
            minHeight: 44,
            display: 'inline-flex',
            alignItems: 'center',
            fontWeight: isHere ? 700 : 400,
            textDecoration: isHere ? 'none' : 'underline',
          }}
        >
          {name}
        </Box>
      ))}
    </Stack>
  );
}
