'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import type { ReactNode } from 'react';

/** One thing to go to: what it is, what it is about, how it stands. The whole line is the link. */
export function LineLink({
  href,
  name,
  about,
  aside,
}: {
  href: string;
  name: string;
  about: string;
  aside: ReactNode;
}) {
  return (
    <Box
      component={Link}
      href={href}
      // A list would fetch every line of it beforehand.
      prefetch={false}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        minHeight: 52,
        py: 0.75,
        textDecoration: 'none',
        borderTop: '1px solid var(--rule)',
        '&:hover .name': { textDecoration: 'underline' },
      }}
    >
      <Box sx={{ minWidth: { xs: '55%', sm: 0 } }}>
        <Typography className="name" sx={{ fontWeight: 700, lineHeight: 1.25 }}>
          {name}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary', lineHeight: 1.3 }}>
          {about}
        </Typography>
      </Box>
      <Box sx={{ ml: 'auto', textAlign: 'right', whiteSpace: { xs: 'normal', sm: 'nowrap' } }}>{aside}</Box>
    </Box>
  );
}
