'use client';
import Button from '@mui/material/Button';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { adjustAgainAction } from './actions/adjust';

/** The way back to another adjustment, before the instrument is returned to service. */
export function AdjustAgain({
  job,
  isAdvised,
  isAnythingAdjusted,
}: {
  job: number;
  isAdvised: boolean;
  isAnythingAdjusted: boolean;
}) {
  const { answer, isPending, form } = useSubmit(adjustAgainAction);
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="job" value={job} />
      <Button type="submit" variant={isAdvised ? 'outlined' : 'text'} aria-busy={isPending} sx={{ mt: 1 }}>
        {isAnythingAdjusted ? 'Adjust again' : 'Adjust after all'}
      </Button>
      <Refused answer={answer} />
    </form>
  );
}
