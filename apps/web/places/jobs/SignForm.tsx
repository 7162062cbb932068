'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { signAction } from './actions/sign';

/** The password again, as a signature; nothing for those of the demo, who have none. */
export function PasswordAgain({ isNeeded }: { isNeeded: boolean }) {
  if (!isNeeded)
    return (
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        In a real installation the password is asked again here; the demo’s people have none.
      </Typography>
    );
  return (
    <TextField
      name="password"
      type="password"
      label="Your password again"
      autoComplete="current-password"
      fullWidth
      sx={{ mt: 1.5 }}
    />
  );
}

export function SignForm({
  job,
  name,
  readers,
  days,
  isReasonWanted,
  hasPassword,
  sentBack,
}: {
  job: number;
  name: string | null;
  /** Who read the values, and on which days. */
  readers: readonly string[];
  days: string;
  /** Whether it is left outside its limit, or not judged, and nobody has said why yet. */
  isReasonWanted: boolean;
  hasPassword: boolean;
  /** What the reviewer said, where the job was sent back. */
  sentBack: string | null;
}) {
  const { answer, isPending, form } = useSubmit(signAction, `sign ${job}`);
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="job" value={job} />
      {sentBack !== null && (
        <Alert severity="info" variant="outlined" sx={{ mb: 1.5 }}>
          From the review, {sentBack}
        </Alert>
      )}
      <Typography sx={{ mb: 1.5 }}>
        {readers.length > 0 && `Read by ${readers.join(' and ')} on ${days}. `}
        Signing says that the record is true and complete. It goes to review where the site has one; once
        closed it can only be amended.
      </Typography>
      <TextField
        name="note"
        label={isReasonWanted ? 'Remark: why it is left so' : 'Remark'}
        required={isReasonWanted}
        fullWidth
        multiline
      />
      <PasswordAgain isNeeded={hasPassword} />
      <Stack direction="row" sx={{ gap: 1, mt: 1.5, flexWrap: 'wrap' }}>
        <Button
          type="submit"
          name="act"
          value="sign"
          variant="contained"
          size="large"
          disabled={isPending || name === null}
          autoFocus={!isReasonWanted}
        >
          {name === null ? 'Sign in to sign the job' : `Sign as ${name}`}
        </Button>
        <Button type="submit" name="act" value="back" aria-busy={isPending} formNoValidate>
          Back to the return
        </Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
