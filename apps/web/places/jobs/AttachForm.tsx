'use client';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { useIsMounted } from '@/ui/useIsMounted';
import { attachAction } from './actions/stages';

/** A note, a photograph or both; a phone offers its camera. */
export function AttachForm({
  job,
  run,
  points,
}: {
  job: number;
  /** The run in hand, whose points it may be of. */
  run: number | null;
  points: readonly { readonly position: number; readonly words: string }[];
}) {
  const { answer, isPending, form } = useSubmit(attachAction);
  const isMounted = useIsMounted();
  const [name, setName] = useState('');
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="job" value={job} />
      {run !== null && <input type="hidden" name="run" value={run} />}
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
        <TextField name="remark" label="Note" autoComplete="off" sx={{ flex: 1, minWidth: 200 }} />
        {run !== null && (
          <TextField
            select
            name="position"
            label="Of"
            defaultValue=""
            sx={{ minWidth: 150 }}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          >
            <MenuItem value="" sx={{ minHeight: 44 }}>
              the whole run
            </MenuItem>
            {points.map(({ position, words }) => (
              <MenuItem key={position} value={String(position)} sx={{ minHeight: 44 }}>
                {words}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Button component="label" variant="outlined">
          {name === '' ? 'Photograph or PDF' : name}
          <input
            type="file"
            name="file"
            aria-label="Photograph or PDF"
            accept="image/jpeg,image/png,image/webp,application/pdf"
            hidden
            onChange={(event) => setName(event.target.files?.[0]?.name ?? '')}
          />
        </Button>
        <Button type="submit" disabled={isPending || !isMounted}>
          Add
        </Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
