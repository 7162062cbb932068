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
  /** A page whose address begins that of others is exact: it is not where they are. */
  pages: readonly { readonly name: string; readonly path: string; readonly isExact?: true }[];
}) {
  const path = usePathname();
  const isAt = ({ path: page, isExact }: (typeof pages)[number]): boolean =>
    path === page || (isExact !== true && path.startsWith(`${page}/`));
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
          aria-current={isAt(tool) ? 'page' : undefined}
          sx={{
            px: 1.25,
            height: 44,
            display: 'inline-flex',
            alignItems: 'center',
            textDecoration: 'none',
            fontWeight: isAt(tool) ? 700 : 400,
            boxShadow: isAt(tool) ? 'inset 0 -3px 0 var(--now)' : 'inset 0 -1px 0 var(--rule)',
          }}
        >
          {tool.name}
        </Box>
      ))}
    </Stack>
  );
}
