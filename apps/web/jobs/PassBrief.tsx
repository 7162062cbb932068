'use client';
import Button from '@mui/material/Button';
import { Refused } from '@/ui/Refused';
import { useAct } from '@/ui/useAct';
import { passBriefAction } from './actions';

export function PassBrief({ job }: { job: number }) {
  const { answer, isPending, onSubmit } = useAct(passBriefAction);
  return (
    <form onSubmit={onSubmit}>
      <input type="hidden" name="job" value={job} />
      <Button type="submit" variant="contained" size="large" disabled={isPending} autoFocus>
        Brief read, connect
      </Button>
      <Refused answer={answer} />
    </form>
  );
}
