'use client';
import type { JobReason } from '@barys/store/jobs';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { REASON_WORD } from '@/places/jobs/words';
import { Refused } from '@/ui/Refused';
import { useSubmit } from '@/ui/useSubmit';
import { assignOwnerAction, openJobsAction } from './actions';

/** What can be done with several instruments at once. */
export function BulkBar({
  ids,
  people,
  clear,
}: {
  ids: readonly number[];
  people: readonly string[];
  clear: () => void;
}) {
  const [told, setTold] = useState('');
  const assign = useSubmit(assignOwnerAction);
  const jobs = useSubmit(async (entry: { ids: number[]; reason: string }) => {
    const answer = await openJobsAction(entry);
    const { opened = 0, refused = [] } = answer;
    if (answer.error === null)
      setTold([`${opened} ${opened === 1 ? 'job' : 'jobs'} opened.`, ...refused].join(' '));
    return answer;
  });
  const isPending = assign.isPending || jobs.isPending;
  return (
    <Stack
      sx={{
        px: 1.25,
        pb: 1.25,
        gap: 1,
        borderTop: '1px solid var(--rule)',
        pt: 1.25,
        bgcolor: 'var(--wash)',
      }}
    >
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
        <Typography sx={{ fontWeight: 700, mr: 1 }}>{ids.length} chosen</Typography>
        <Assign ids={ids} people={people} act={assign} isPending={isPending} told={setTold} />
        <OpenJobs ids={ids} submit={jobs.submit} isPending={isPending} />
        <Button
          component="a"
          variant="outlined"
          href={`/instruments/labels?ids=${ids.join('.')}`}
          target="_blank"
        >
          Print labels
        </Button>
        <Button onClick={clear}>Choose none</Button>
      </Stack>
      <Typography role="status" variant="body2">
        {told}
      </Typography>
      <Refused answer={assign.answer.error === null ? jobs.answer : assign.answer} />
    </Stack>
  );
}

function Assign({
  ids,
  people,
  act,
  isPending,
  told,
}: {
  ids: readonly number[];
  people: readonly string[];
  act: Pick<ReturnType<typeof useSubmit<Parameters<typeof assignOwnerAction>[0]>>, 'submit'>;
  isPending: boolean;
  told: (words: string) => void;
}) {
  const [owner, setOwner] = useState('');
  return (
    <>
      <Autocomplete
        freeSolo
        options={people}
        inputValue={owner}
        onInputChange={(_event, text) => setOwner(text)}
        sx={{ width: 190 }}
        size="small"
        renderInput={(props) => <TextField {...props} label="Owner" />}
      />
      <Button
        variant="outlined"
        disabled={isPending || owner.trim() === ''}
        onClick={() => act.submit({ ids: [...ids], owner }, () => told(`Assigned to ${owner.trim()}.`))}
      >
        Assign
      </Button>
    </>
  );
}

function OpenJobs({
  ids,
  submit,
  isPending,
}: {
  ids: readonly number[];
  submit: (entry: { ids: number[]; reason: string }) => void;
  isPending: boolean;
}) {
  const [reason, setReason] = useState<JobReason>('due');
  return (
    <>
      <TextField
        select
        label="Why"
        value={reason}
        onChange={(event) => setReason(event.target.value as JobReason)}
        sx={{ minWidth: 150 }}
      >
        {(Object.keys(REASON_WORD) as JobReason[]).map((one) => (
          <MenuItem key={one} value={one}>
            {REASON_WORD[one]}
          </MenuItem>
        ))}
      </TextField>
      <Button variant="outlined" disabled={isPending} onClick={() => submit({ ids: [...ids], reason })}>
        Open jobs
      </Button>
    </>
  );
}
