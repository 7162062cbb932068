'use client';
import type { Review } from '@barys/store/people';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import { Kept } from '@/ui/Kept';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { useIsMounted } from '@/ui/useIsMounted';
import { setReviewAction } from './actions';

const WORDS: readonly (readonly [Review, string])[] = [
  ['another person', 'By another person: somebody who had no hand in the job'],
  ['anybody', 'By anybody who may review, also the signer'],
  ['none', 'No review: a signed job is closed at once'],
];

export function ReviewSetting({ review }: { review: Review }) {
  const { answer, isKept, isPending, form } = useSubmit(setReviewAction);
  const isMounted = useIsMounted();
  return (
    <form {...form(asItStands)}>
      <RadioGroup name="review" defaultValue={review} aria-label="Review of signed jobs">
        {WORDS.map(([value, words]) => (
          <FormControlLabel key={value} value={value} control={<Radio />} label={words} />
        ))}
      </RadioGroup>
      <Button type="submit" variant="contained" disabled={isPending || !isMounted} sx={{ mt: 1 }}>
        Keep
      </Button>
      <Kept isKept={isKept} />
      <Refused answer={answer} />
    </form>
  );
}
