'use client';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { turnAction } from './actions/stages';

const WORDS = {
  connect: {
    open: 'Connect once more',
    about:
      'Another standard, hose or meter is needed. The connection so far and runs that were finished stay on record; a run in hand no longer counts.',
    label: 'Why it is connected once more',
    act: 'Back to Connect',
  },
  cancel: {
    open: 'Cancel this job',
    about: 'For a job that should not have been opened. It stays in the list, with the reason.',
    label: 'Why it is cancelled',
    act: 'Cancel the job',
  },
} as const;

/** The ways off the usual one: connect once more, or give the job up; each with a reason that stays. */
export function Turns({
  job,
  canConnect,
  isMoved,
}: {
  job: number;
  canConnect: boolean;
  /** Whether valves were moved in the job. */
  isMoved: boolean;
}) {
  const [turn, setTurn] = useState<keyof typeof WORDS | null>(null);
  const { answer, isPending, form } = useSubmit(turnAction, `turn ${job}`);
  if (turn === null)
    return (
      <Stack direction="row" sx={{ gap: 1, mt: 1.5, flexWrap: 'wrap' }}>
        {canConnect && <Button onClick={() => setTurn('connect')}>{WORDS.connect.open}</Button>}
        <Button onClick={() => setTurn('cancel')}>{WORDS.cancel.open}</Button>
      </Stack>
    );
  const { about, label, act } = WORDS[turn];
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="job" value={job} />
      <input type="hidden" name="turn" value={turn} />
      <Typography sx={{ mt: 1.5 }}>{about}</Typography>
      <TextField name="reason" label={label} fullWidth autoFocus sx={{ mt: 1 }} />
      {turn === 'cancel' && isMoved && (
        <FormControlLabel
          sx={{ minHeight: 44 }}
          control={<Checkbox name="isBack" value="yes" />}
          label="Its valves are back and the instrument is in service"
        />
      )}
      <Stack direction="row" sx={{ gap: 1, mt: 1 }}>
        <Button type="submit" variant="outlined" aria-busy={isPending}>
          {act}
        </Button>
        <Button onClick={() => setTurn(null)}>Leave it as it is</Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
