import type { JobLine } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { showDate, showMoment } from '@/server/dates';
import { VerdictMark } from '@/ui/VerdictMark';
import { REASON_WORD, STAGE_WORD } from './words';

/** Jobs as lines; the instrument is left out on its own page. */
export function JobTable({
  jobs,
  showInstrument,
  empty,
}: {
  jobs: readonly JobLine[];
  showInstrument: boolean;
  empty: string;
}) {
  if (jobs.length === 0) return <Typography sx={{ color: 'text.secondary' }}>{empty}</Typography>;
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Jobs">
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>Job</TableCell>
            {showInstrument && <TableCell>Instrument</TableCell>}
            <TableCell>Why</TableCell>
            <TableCell>Stage</TableCell>
            <TableCell>As found</TableCell>
            <TableCell>As left</TableCell>
            <TableCell>Who</TableCell>
            <TableCell>When</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {jobs.map((job) => (
            <TableRow key={job.id}>
              <TableCell>
                <Link prefetch={false} href={`/jobs/${job.id}`}>
                  {job.id}
                </Link>
              </TableCell>
              {showInstrument && (
                <TableCell>
                  <Link prefetch={false} href={`/instruments/${job.tag}`}>
                    {job.tag}
                  </Link>{' '}
                  {job.service}
                </TableCell>
              )}
              <TableCell>{REASON_WORD[job.reason]}</TableCell>
              <TableCell>{STAGE_WORD[job.stage]}</TableCell>
              <TableCell>
                {job.asFoundVerdict === null ? '' : <VerdictMark verdict={job.asFoundVerdict} isShort />}
              </TableCell>
              <TableCell>
                {job.asLeftVerdict === null ? '' : <VerdictMark verdict={job.asLeftVerdict} isShort />}
              </TableCell>
              <TableCell>{job.signedBy ?? job.cancelledBy ?? job.openedBy}</TableCell>
              <TableCell>
                {job.cancelledAt !== null
                  ? `cancelled ${showDate(job.cancelledAt)}: ${job.cancelReason}`
                  : job.signedAt === null
                    ? `opened ${showMoment(job.openedAt)}`
                    : `signed ${showDate(job.signedAt)}`}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
