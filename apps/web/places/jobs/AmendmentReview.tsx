'use client';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { useIsMounted } from '@/ui/useIsMounted';
import { reviewAmendmentAction } from './actions/sign';
import { PasswordAgain } from './SignForm';

/** A second person's word on an amendment that waits. */
export function AmendmentReview({
  amendment,
  words,
  hasPassword,
}: {
  amendment: number;
  /** What is amended, in a sentence. */
  words: string;
  hasPassword: boolean;
}) {
  const { answer, isPending, form } = useSubmit(reviewAmendmentAction, `amendment ${amendment}`);
  const isMounted = useIsMounted();
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="amendment" value={amendment} />
      <Typography sx={{ mb: 1 }}>{words}</Typography>
      <TextField name="note" label="Remark; why, if it is refused" fullWidth multiline />
      <PasswordAgain isNeeded={hasPassword} />
      <Stack direction="row" sx={{ gap: 1, mt: 1.5, flexWrap: 'wrap' }}>
        <Button
          type="submit"
          name="act"
          value="accept"
          variant="contained"
          disabled={isPending || !isMounted}
        >
          Agree to the amendment
        </Button>
        <Button type="submit" name="act" value="refuse" variant="outlined" disabled={isPending || !isMounted}>
          Refuse it
        </Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
