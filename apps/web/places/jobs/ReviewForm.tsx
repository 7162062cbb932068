'use client';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { useIsMounted } from '@/ui/useIsMounted';
import { reviewAction } from './actions/sign';
import { PasswordAgain } from './SignForm';

/** A second person's look at a signed job. */
export function ReviewForm({
  job,
  name,
  signedBy,
  why,
  hasPassword,
}: {
  job: number;
  name: string;
  signedBy: string;
  /** Why this person may not review it; null where they may. */
  why: string | null;
  hasPassword: boolean;
}) {
  const { answer, isPending, form } = useSubmit(reviewAction, `review ${job}`);
  const isMounted = useIsMounted();
  if (why !== null) return <Typography>{why}</Typography>;
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="job" value={job} />
      <Typography sx={{ mb: 1.5 }}>
        Signed by {signedBy}. Accepting closes the record: after that it can only be amended.
      </Typography>
      <TextField name="note" label="Remark; what to put right, if it goes back" fullWidth multiline />
      <PasswordAgain isNeeded={hasPassword} />
      <Stack direction="row" sx={{ gap: 1, mt: 1.5, flexWrap: 'wrap' }}>
        <Button
          type="submit"
          name="act"
          value="accept"
          variant="contained"
          disabled={isPending || !isMounted}
        >
          Accept as {name}
        </Button>
        <Button
          type="submit"
          name="act"
          value="send-back"
          variant="outlined"
          disabled={isPending || !isMounted}
        >
          Send back
        </Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
