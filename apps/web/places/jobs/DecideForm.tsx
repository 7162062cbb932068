'use client';
import type { Act } from '@barys/core/adjust';
import type { DecisionOnRun } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { ActTable } from './advice/ActTable';
import type { ShownAct } from './advice/shownActs';
import { decideAction } from './actions/runs';
import { DECISION_WORD } from './words';

const OTHERS = ['repair', 'replace', 'range change', 'further tests'] as const;

/** The decision; what the readings ask for comes first and is one key away. */
export function DecideForm({ job, lead, acts }: { job: number; lead: Act; acts: readonly ShownAct[] }) {
  const { answer, isPending, form } = useSubmit(decideAction, `decide ${job}`);
  const isAdjustAdvised = lead !== 'none';
  const isRepairAdvised = lead === 'repair';
  const main = (decision: DecisionOnRun, isAdvised: boolean, word: string) => (
    <Button
      key={decision}
      type="submit"
      name="decision"
      value={decision}
      variant={isAdvised ? 'contained' : 'outlined'}
      autoFocus={isAdvised}
      aria-busy={isPending}
    >
      {word}
    </Button>
  );
  const adjust = main(
    'adjust',
    isAdjustAdvised && !isRepairAdvised,
    isAdjustAdvised ? 'Adjust' : 'Adjust all the same',
  );
  const repair = main('repair', true, DECISION_WORD.repair);
  const leave = main('leave', !isAdjustAdvised, DECISION_WORD.leave);
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="job" value={job} />
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        {isRepairAdvised ? [repair, adjust, leave] : isAdjustAdvised ? [adjust, leave] : [leave, adjust]}
        <Button type="submit" name="decision" value="reopen" aria-busy={isPending}>
          Correct a reading
        </Button>
      </Stack>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', mt: 1 }}>
        {OTHERS.filter((decision) => !(isRepairAdvised && decision === 'repair')).map((decision) => (
          <Button key={decision} type="submit" name="decision" value={decision} aria-busy={isPending}>
            {DECISION_WORD[decision]}
          </Button>
        ))}
      </Stack>
      <TextField
        name="note"
        label={
          isAdjustAdvised
            ? 'Remark; the reason, if it is anything but adjusted'
            : 'Remark; the reason, if it is not left'
        }
        fullWidth
        sx={{ mt: 1.5 }}
      />
      {acts.length > 0 && (
        <Box sx={{ mt: 1.5 }}>
          <ActTable acts={acts} isPending={isPending} />
        </Box>
      )}
      <Refused answer={answer} />
    </form>
  );
}
