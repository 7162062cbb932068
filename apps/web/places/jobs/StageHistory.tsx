import type { JobFile } from '@barys/store/jobs';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { showMoment } from '@/server/dates';
import { STAGE_WORD } from './words';

/** Each stage as it was passed: who, when, and what was said. */
export function StageHistory({ job }: { job: JobFile }) {
  return (
    <Table size="small">
      <TableHead>
        <TableRow>
          <TableCell>Stage</TableCell>
          <TableCell>Who, when</TableCell>
          <TableCell>What was said</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {job.passed.map(({ stage, doneBy, doneAt, note, isSkip, answers }, index) => (
          <TableRow key={index} sx={{ verticalAlign: 'baseline' }}>
            <TableCell>
              {STAGE_WORD[stage]}
              {isSkip ? ' (passed over)' : ''}
            </TableCell>
            <TableCell>
              {doneBy}, {showMoment(doneAt)}
            </TableCell>
            <TableCell>
              {[note, ...answers.map(({ question, answer }) => `${question}: ${answer}`)]
                .filter((line) => line !== '')
                .map((line) => (
                  <div key={line}>{line}</div>
                ))}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
