import { formatSigned } from '@barys/core';
import type { PastRun } from '@barys/store';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { showDate } from '@/server/dates';
import { Figure } from '@/ui/Figure';
import { Scroller } from '@/ui/Scroller';
import { VerdictMark } from '@/ui/VerdictMark';

/** Runs that were imported: history to look at, not records of Barys. */
export function PastRuns({ runs }: { runs: readonly PastRun[] }) {
  return (
    <Scroller label="Results brought in">
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>When</TableCell>
            <TableCell>Run</TableCell>
            <TableCell>Readings</TableCell>
            <TableCell>Worst error</TableCell>
            <TableCell>Verdict</TableCell>
            <TableCell>Who, record</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {runs.map((run) => (
            <TableRow key={`${run.doneOn} ${run.kind}`}>
              <TableCell>{showDate(run.doneOn)}</TableCell>
              <TableCell>{run.kind === 'as-found' ? 'as found' : 'as left'}</TableCell>
              <TableCell>{run.readings}</TableCell>
              <TableCell>
                <Figure>{run.worst === null ? '—' : `${formatSigned(run.worst, 3)} %`}</Figure>
              </TableCell>
              <TableCell>{run.verdict !== null && <VerdictMark verdict={run.verdict} />}</TableCell>
              <TableCell>{[run.doneBy, run.certificate].filter(Boolean).join(', ')}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Scroller>
  );
}
