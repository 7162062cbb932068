'use client';
import { formatSigned, type Verdict } from '@barys/core';
import type { DoubtfulRun } from '@barys/store';
import { DECISIONS } from '@barys/store/shapes';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useState } from 'react';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Refused } from '@/ui/Refused';
import { useSubmit } from '@/ui/useSubmit';
import { VerdictMark } from '@/ui/VerdictMark';
import { decideFindingAction } from './actions';

const signed = (percent: number | null): string => (percent === null ? '—' : `${formatSigned(percent, 3)} %`);

/** Each run with its verdict as it was and with the error found, and what is decided about it. */
export function DoubtTable({ finding, runs }: { finding: number; runs: readonly DoubtfulRun[] }) {
  return (
    <DataTable
      label="Runs in doubt"
      rows={runs}
      keyOf={({ runId }) => runId}
      columns={[
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
        ['Decision', (run) => <DecisionCell finding={finding} run={run} />],
      ]}
    />
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

function DecisionCell({ finding, run }: { finding: number; run: DoubtfulRun }) {
  const [remark, setRemark] = useState('');
  const { answer, isPending, submit } = useSubmit(decideFindingAction);
  return (
    <>
      {run.decision !== null && (
        <div>
          <strong>{run.decision}</strong>, {run.decidedBy}
          {run.remark === '' ? '' : `: ${run.remark}`}
        </div>
      )}
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}>
        {DECISIONS.map((decision) => (
          <Button
            key={decision}
            size="small"
            variant={run.decision === decision ? 'contained' : 'outlined'}
            disabled={isPending}
            onClick={() => submit({ finding, run: run.runId, decision, remark }, () => setRemark(''))}
          >
            {decision}
          </Button>
        ))}
        <TextField
          label="Remark"
          value={remark}
          onChange={(event) => setRemark(event.target.value)}
          sx={{ minWidth: 140, flex: 1 }}
        />
      </Stack>
      <Refused answer={answer} />
    </>
  );
}
