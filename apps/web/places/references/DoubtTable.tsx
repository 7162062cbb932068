'use client';
import type { Verdict } from '@barys/core/run';
import { formatSigned } from '@barys/core/text';
import type { DoubtfulRun } from '@barys/store/registers';
import { DECISIONS } from '@barys/store/shapes';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Refused } from '@/ui/Refused';
import { useSubmit } from '@/ui/useSubmit';
import { VerdictMark } from '@/ui/VerdictMark';
import { decideFindingAction } from './actions';

const signed = (percent: number | null): string => (percent === null ? '—' : `${formatSigned(percent, 3)} %`);

const RUN_COLUMNS: readonly (readonly [heading: string, cell: (run: DoubtfulRun) => ReactNode])[] = [
  [
    'Run',
    (run) => (
      <>
        <Link prefetch={false} href={`/instruments/${run.tag}`}>
          {run.tag}
        </Link>
        ,{' '}
        <Link prefetch={false} href={`/jobs/${run.jobId}`}>
          job {run.jobId}
        </Link>
        <br />
        {run.kind === 'as-found' ? 'as found' : 'as left'}, {showDate(run.startedAt)}
      </>
    ),
  ],
  ['Judged then', (run) => <Judged verdict={run.verdictThen} worst={run.worstThen} />],
  ['With the error found', (run) => <Judged verdict={run.verdictNow} worst={run.worstNow} />],
  [
    'Decision',
    (run) =>
      run.decision === null ? (
        'to decide'
      ) : (
        <>
          <strong>{run.decision}</strong>, {run.decidedBy}
          {run.remark === '' ? '' : `: ${run.remark}`}
        </>
      ),
  ],
];

/** Each run with its verdict as it was and with the error found, and what is decided about those that are ticked. */
export function DoubtTable({ finding, runs }: { finding: number; runs: readonly DoubtfulRun[] }) {
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  const [remark, setRemark] = useState('');
  const { answer, isPending, submit } = useSubmit(decideFindingAction);
  const tick = (runIds: readonly number[], isOn: boolean) =>
    setTicked((before) => {
      const after = new Set(before);
      for (const runId of runIds)
        if (isOn) after.add(runId);
        else after.delete(runId);
      return after;
    });
  const open = runs.filter(({ decision }) => decision === null).map(({ runId }) => runId);
  return (
    <>
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, alignItems: 'center', mb: 1 }}>
        <Button onClick={() => setTicked(new Set(open))} disabled={open.length === 0}>
          Tick all {open.length} to decide
        </Button>
        <TextField
          label="Remark"
          value={remark}
          onChange={(event) => setRemark(event.target.value)}
          sx={{ minWidth: 180, flex: 1 }}
        />
        {DECISIONS.map((decision) => (
          <Button
            key={decision}
            variant="outlined"
            disabled={isPending || ticked.size === 0}
            onClick={() =>
              submit({ finding, runs: [...ticked], decision, remark }, () => {
                setRemark('');
                setTicked(new Set());
              })
            }
          >
            {decision}
          </Button>
        ))}
        <Typography variant="body2">for {ticked.size} ticked</Typography>
      </Stack>
      <Refused answer={answer} />
      <DataTable
        label="Runs in doubt"
        rows={runs}
        keyOf={({ runId }) => runId}
        columns={[
          [
            '',
            (run) => (
              <Checkbox
                checked={ticked.has(run.runId)}
                onChange={(_event, isOn) => tick([run.runId], isOn)}
                slotProps={{ input: { 'aria-label': `${run.tag}, job ${run.jobId}, ${run.kind}` } }}
              />
            ),
          ],
          ...RUN_COLUMNS,
        ]}
      />
    </>
  );
}

function Judged({ verdict, worst }: { verdict: Verdict | null; worst: number | null }) {
  return (
    <>
      {verdict !== null && <VerdictMark verdict={verdict} isShort />}
      <br />
      <Figure>{signed(worst)}</Figure>
    </>
  );
}
