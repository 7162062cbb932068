'use client';
import type { JobReason } from '@barys/store/jobs';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { openJobAction } from '@/places/jobs/actions/stages';
import { REASON_WORD } from '@/places/jobs/words';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';

/** @param reasons the kinds of job that there can be on it */
export function StartJob({ tag, reasons }: { tag: string; reasons: readonly JobReason[] }) {
  const { answer, isPending, form } = useSubmit(openJobAction);
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="tag" value={tag} />
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <TextField select name="reason" label="Why" defaultValue="due" sx={{ minWidth: 210 }}>
          {reasons.map((reason) => (
            <MenuItem key={reason} value={reason}>
              {REASON_WORD[reason]}
            </MenuItem>
          ))}
        </TextField>
        <Button type="submit" variant="contained" aria-busy={isPending} autoFocus>
          Start a job
        </Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
