'use client';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { releaseReferenceAction } from './actions';

/** Lets a reference that was found wrong be used again. */
export function ReleaseForm({ finding, tag }: { finding: number; tag: string }) {
  const { answer, isPending, form } = useSubmit(releaseReferenceAction, `release ${finding}`);
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="finding" value={finding} />
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <TextField
          name="reason"
          label="What was done to it, or why it is good enough"
          sx={{ flex: 1, minWidth: 260 }}
          autoComplete="off"
        />
        <Button type="submit" variant="outlined" aria-busy={isPending}>
          Release {tag}
        </Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
