'use client';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { TOOLS } from './tools';

export function ToolTabs() {
  const path = usePathname();
  return (
    <Stack
      component="nav"
      aria-label="Tools of the workshop"
      direction="row"
      sx={{ flexWrap: 'wrap', gap: 0.5, mb: 1, '@media print': { display: 'none' } }}
    >
      {TOOLS.map((tool) => (
        <Box
          key={tool.path}
          component={Link}
          href={tool.path}
          prefetch={false}
          aria-current={path === tool.path ? 'page' : undefined}
          sx={{
            px: 1.25,
            height: 44,
            display: 'inline-flex',
            alignItems: 'center',
            textDecoration: 'none',
            fontWeight: path === tool.path ? 700 : 400,
            boxShadow: path === tool.path ? 'inset 0 -3px 0 var(--now)' : 'inset 0 -1px 0 var(--rule)',
          }}
        >
          {tool.name}
        </Box>
      ))}
    </Stack>
  );
}
