'use client';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState, type SubmitEvent } from 'react';
import { finishRunAction } from '@/places/jobs/actions/runs';
import { Refused } from '@/ui/Refused';
import { useSubmit } from '@/ui/useSubmit';
import type { ShownRun } from './types';

/** All points are read: on to what comes next, as soon as the last reading is saved. */
export function Finish({
  jobId,
  kind,
  count,
  isSaved,
}: {
  jobId: number;
  kind: ShownRun['kind'];
  count: number;
  isSaved: boolean;
}) {
  const { answer, isPending, submit } = useSubmit(finishRunAction);
  const [isWanted, setIsWanted] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    if (isWanted && isSaved) form.current?.requestSubmit();
  }, [isWanted, isSaved]);

  const onSubmit = (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    setIsWanted(!isSaved);
    if (isSaved) submit(new FormData(event.currentTarget));
  };
  return (
    <form ref={form} method="post" onSubmit={onSubmit}>
      <input type="hidden" name="job" value={jobId} />
      <input type="hidden" name="kind" value={kind} />
      <Typography sx={{ fontWeight: 700, fontSize: 20, mb: 0.5 }}>All {count} points are read</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.5 }}>
        {isWanted && !isSaved
          ? 'Goes on as soon as the last reading is saved.'
          : '↑ goes back to a reading to correct it.'}
      </Typography>
      <Button type="submit" variant="contained" size="large" aria-busy={isPending} autoFocus>
        {kind === 'as-found' ? 'Judge' : 'Return to service'}
      </Button>
      <Refused answer={answer} />
    </form>
  );
}
