'use client';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Link from 'next/link';
import { usePathname } from 'next/navigation';

/** Pages of one place, side by side. */
export function TabLinks({
  name,
  pages,
}: {
  name: string;
  pages: readonly { readonly name: string; readonly path: string }[];
}) {
  const path = usePathname();
  const isAt = (page: string): boolean => path === page || path.startsWith(`${page}/`);
  return (
    <Stack
      component="nav"
      aria-label={name}
      direction="row"
      sx={{ flexWrap: 'wrap', gap: 0.5, mb: 1, '@media print': { display: 'none' } }}
    >
      {pages.map((tool) => (
        <Box
          key={tool.path}
          component={Link}
          href={tool.path}
          prefetch={false}
          aria-current={isAt(tool.path) ? 'page' : undefined}
          sx={{
            px: 1.25,
            height: 44,
            display: 'inline-flex',
            alignItems: 'center',
            textDecoration: 'none',
            fontWeight: isAt(tool.path) ? 700 : 400,
            boxShadow: isAt(tool.path) ? 'inset 0 -3px 0 var(--now)' : 'inset 0 -1px 0 var(--rule)',
          }}
        >
          {tool.name}
        </Box>
      ))}
    </Stack>
  );
}
