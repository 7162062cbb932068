'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

/** What is shown of the advice: by kind, by a word, page by page; it stands in the address. */
export function AdviceFilters({
  kind,
  q,
  page,
  pages,
  kinds,
}: {
  kind: string;
  q: string;
  page: number;
  pages: number;
  kinds: readonly { readonly kind: string; readonly words: string; readonly count: number }[];
}) {
  const router = useRouter();
  const [typed, setTyped] = useState(q);
  const address = (patch: Readonly<Record<string, string>>) => {
    const next = { kind, q, ...patch };
    return `/insight/intervals?${new URLSearchParams(Object.entries(next).filter(([, value]) => value !== ''))}`;
  };
  return (
    <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, alignItems: 'center', mb: 1 }} role="search">
      {kinds.map((one) => (
        <Box
          key={one.kind}
          component={Link}
          href={address({ kind: one.kind, page: '' })}
          prefetch={false}
          aria-current={one.kind === kind ? 'true' : undefined}
          sx={{
            px: 1,
            minHeight: 44,
            display: 'inline-flex',
            alignItems: 'center',
            color: 'inherit',
            fontWeight: one.kind === kind ? 700 : 400,
            textDecoration: one.kind === kind ? 'none' : 'underline',
          }}
        >
          {one.words} {one.count.toLocaleString('en')}
        </Box>
      ))}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          router.push(address({ q: typed.trim(), page: '' }));
        }}
      >
        <TextField
          label="Find by any part"
          type="search"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 100 } }}
        />
      </form>
      {pages > 1 && (
        <Stack direction="row" sx={{ alignItems: 'center', ml: 'auto' }}>
          <Button component={Link} href={address({ page: String(page - 1) })} disabled={page === 0}>
            Before
          </Button>
          {page + 1} of {pages}
          <Button component={Link} href={address({ page: String(page + 1) })} disabled={page + 1 >= pages}>
            Next
          </Button>
        </Stack>
      )}
    </Stack>
  );
}
