'use client';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { Refused } from '@/ui/Refused';
import { useAct } from '@/ui/useAct';
import { decideAction } from './actions';

/** The decision; what the readings ask for comes first and is one key away. */
export function DecideForm({ job, isAdjustAdvised }: { job: number; isAdjustAdvised: boolean }) {
  const { answer, isPending, onSubmit } = useAct(decideAction);
  const adjust = (
    <Button
      key="adjust"
      type="submit"
      name="decision"
      value="adjust"
      variant={isAdjustAdvised ? 'contained' : 'outlined'}
      autoFocus={isAdjustAdvised}
      disabled={isPending}
    >
      {isAdjustAdvised ? 'Adjust' : 'Adjust all the same'}
    </Button>
  );
  const leave = (
    <Button
      key="leave"
      type="submit"
      name="decision"
      value="leave"
      variant={isAdjustAdvised ? 'outlined' : 'contained'}
      autoFocus={!isAdjustAdvised}
      disabled={isPending}
    >
      Leave as found
    </Button>
  );
  return (
    <form onSubmit={onSubmit}>
      <input type="hidden" name="job" value={job} />
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        {isAdjustAdvised ? [adjust, leave] : [leave, adjust]}
        <Button type="submit" name="decision" value="reopen" disabled={isPending}>
          Correct a reading
        </Button>
      </Stack>
      <TextField
        name="note"
        label={isAdjustAdvised ? 'Remark; the reason, if it is left as found' : 'Remark'}
        fullWidth
        sx={{ mt: 1.5 }}
      />
      <Refused answer={answer} />
    </form>
  );
}
