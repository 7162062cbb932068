'use client';
/** Takes a suspicion into the record of a job as its finding, or takes it back. */
import type { Suspicion } from '@barys/core/suspects';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { keepFindingAction } from '@/places/jobs/actions/causes';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import type { ShownSuspect } from './shown';

export interface StandingFinding {
  readonly suspicion: Suspicion;
  readonly words: string;
}

export function FindingForm({
  job,
  suspect: { suspicion },
  standing,
  vented,
}: {
  job: number;
  suspect: ShownSuspect;
  standing: readonly StandingFinding[];
  vented: string;
}) {
  const { answer, isPending, form } = useSubmit(keepFindingAction, `finding ${job} ${suspicion}`);
  const isStanding = standing.some((one) => one.suspicion === suspicion);
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="job" value={job} />
      <input type="hidden" name="suspicion" value={suspicion} />
      <input type="hidden" name="vented" value={vented} />
      {standing.map((one) => (
        <Typography key={one.suspicion} variant="body2" sx={{ mt: 0.75 }}>
          In the record: {one.words}
        </Typography>
      ))}
      <Stack direction="row" sx={{ gap: 1, mt: 1, flexWrap: 'wrap', alignItems: 'center' }}>
        <TextField
          name="remark"
          label={isStanding ? 'Why it is taken back' : 'What the test showed'}
          sx={{ flex: '1 1 220px' }}
        />
        <Button
          type="submit"
          name="act"
          value={isStanding ? 'take back' : 'keep'}
          variant="outlined"
          aria-busy={isPending}
        >
          {isStanding ? 'Take it back' : 'Into the record'}
        </Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
