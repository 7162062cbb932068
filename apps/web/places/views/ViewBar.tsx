'use client';
import type { SavedView, ViewPlace } from '@barys/store/people';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { useSubmit } from '@/ui/useSubmit';
import { dropViewAction, keepViewAction } from './actions';

/** Views of the list that this person keeps; the one being shown can be kept under a name. */
export function ViewBar({
  place,
  views,
  query,
}: {
  place: ViewPlace;
  views: readonly SavedView[];
  query: string;
}) {
  const [name, setName] = useState('');
  const [isNaming, setNaming] = useState(false);
  const keep = useSubmit(keepViewAction);
  const drop = useSubmit(dropViewAction);
  return (
    <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}>
      {views.map((view) => (
        <Box
          key={view.id}
          sx={{ display: 'inline-flex', alignItems: 'center', border: '1px solid var(--rule)', pl: 1.25 }}
        >
          <Link
            prefetch={false}
            href={`/${place}?${view.query}`}
            aria-current={view.query === query ? 'page' : undefined}
            style={{ fontWeight: view.query === query ? 700 : 400 }}
          >
            {view.name}
          </Link>
          <IconButton
            aria-label={`Drop the view ${view.name}`}
            onClick={() => drop.submit(view.id)}
            sx={{ width: 40, height: 40, color: 'text.secondary' }}
          >
            <DeleteOutlined fontSize="small" />
          </IconButton>
        </Box>
      ))}
      {isNaming ? (
        <form
          {...keep.form(
            () => ({ place, name, query }),
            () => {
              setNaming(false);
              setName('');
            },
          )}
        >
          <Stack direction="row" sx={{ gap: 0.5 }}>
            <TextField
              label="Name of this view"
              value={name}
              onChange={(event) => setName(event.target.value)}
              autoFocus
            />
            <Button type="submit" variant="outlined" disabled={keep.isPending}>
              Keep
            </Button>
            <Button onClick={() => setNaming(false)}>Cancel</Button>
          </Stack>
        </form>
      ) : (
        <Button onClick={() => setNaming(true)}>Keep this view</Button>
      )}
      <Refused answer={keep.answer.error === null ? drop.answer : keep.answer} />
    </Stack>
  );
}
