'use client';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Refused } from '@/ui/Refused';
import { useAct } from '@/ui/useAct';
import { signAction } from './actions';

export function SignForm({
  job,
  name,
  readers,
  isLeftOutside,
  isAdjustAdvised,
  isAnythingAdjusted,
}: {
  job: number;
  name: string | null;
  /** Who read the values. */
  readers: readonly string[];
  isLeftOutside: boolean;
  isAdjustAdvised: boolean;
  isAnythingAdjusted: boolean;
}) {
  const { answer, isPending, onSubmit } = useAct(signAction);
  return (
    <form onSubmit={onSubmit}>
      <input type="hidden" name="job" value={job} />
      <Typography sx={{ mb: 1.5 }}>
        Read by {readers.join(' and ')}. Signing says that the record is true and complete; it is closed then
        and can no longer be changed.
      </Typography>
      <TextField
        name="note"
        label={isLeftOutside ? 'Remark: why it is left outside its limit' : 'Remark'}
        required={isLeftOutside}
        fullWidth
        multiline
      />
      <Stack direction="row" sx={{ gap: 1, mt: 1.5, flexWrap: 'wrap' }}>
        <Button
          type="submit"
          name="act"
          value="sign"
          variant="contained"
          size="large"
          disabled={isPending || name === null}
          autoFocus={!isLeftOutside}
        >
          {name === null ? 'Sign in to sign the job' : `Sign as ${name}`}
        </Button>
        <Button
          type="submit"
          name="act"
          value="adjust"
          variant={isAdjustAdvised ? 'outlined' : 'text'}
          disabled={isPending}
          formNoValidate
        >
          {isAnythingAdjusted ? 'Adjust again' : 'Adjust after all'}
        </Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
