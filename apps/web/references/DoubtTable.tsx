'use client';
import { formatSigned } from '@barys/core';
import type { DoubtfulRun } from '@barys/store';
import { DECISIONS } from '@barys/store/shapes';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useState } from 'react';
import { showDate } from '@/server/dates';
import { Figure } from '@/ui/Figure';
import { Refused } from '@/ui/Refused';
import { Scroller } from '@/ui/Scroller';
import { useSubmit } from '@/ui/useSubmit';
import { VerdictMark } from '@/ui/VerdictMark';
import { decideFindingAction } from './actions';

const signed = (percent: number | null): string => (percent === null ? '—' : `${formatSigned(percent, 3)} %`);

/** Each run with its verdict as it was and with the error found, and what is decided about it. */
export function DoubtTable({ finding, runs }: { finding: number; runs: readonly DoubtfulRun[] }) {
  return (
    <Scroller label="Runs in doubt">
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>Run</TableCell>
            <TableCell>Judged then</TableCell>
            <TableCell>With the error found</TableCell>
            <TableCell>Decision</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {runs.map((run) => (
            <TableRow key={run.runId} sx={{ verticalAlign: 'top' }}>
              <TableCell>
                <Link prefetch={false} href={`/instruments/${run.tag}`}>
                  {run.tag}
                </Link>
                ,{' '}
                <Link prefetch={false} href={`/jobs/${run.jobId}`}>
                  job {run.jobId}
                </Link>
                <br />
                {run.kind === 'as-found' ? 'as found' : 'as left'}, {showDate(run.startedAt)}
              </TableCell>
              <TableCell>
                {run.verdictThen !== null && <VerdictMark verdict={run.verdictThen} />}
                <br />
                <Figure>{signed(run.worstThen)}</Figure>
              </TableCell>
              <TableCell>
                {run.verdictNow !== null && <VerdictMark verdict={run.verdictNow} />}
                <br />
                <Figure>{signed(run.worstNow)}</Figure>
              </TableCell>
              <TableCell>
                <DecisionCell finding={finding} run={run} />
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Scroller>
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
