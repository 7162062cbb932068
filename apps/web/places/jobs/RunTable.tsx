import { evaluateStoredRun } from '@barys/store/evaluation';
import type { Run } from '@barys/store/runs';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { Figure } from '@/ui/Figure';
import { columnHeading } from './columnWords';
import { decadesOf } from '@/ui/decades';
import { figuresOfRun, pointPercent } from '@/ui/figures';
import { VerdictMark } from '@/ui/VerdictMark';

/** What a phone leaves out, so that the verdict is seen without scrolling. */
const WIDE_ONLY = { display: { xs: 'none', sm: 'table-cell' } };

/** The readings of a run with their errors and verdicts, in the order they were taken. */
export function RunTable({ run }: { run: Run }) {
  const figures = figuresOfRun(run.madeWith);
  const { readings } = evaluateStoredRun(run);
  const isOverDecades = figures.errorOf === 'reading';
  return (
    <Box
      sx={{ overflowX: 'auto' }}
      tabIndex={0}
      role="region"
      aria-label={`Readings ${run.kind.replace('-', ' ')}`}
    >
      <Table size="small" sx={{ '& td, & th': { py: '2px', px: 0.75 } }}>
        <TableHead>
          <TableRow>
            <TableCell>Point</TableCell>
            <TableCell align="right">Applied, {figures.inputUnit}</TableCell>
            <TableCell align="right" sx={WIDE_ONLY}>
              Ideal, {figures.outputUnit}
            </TableCell>
            <TableCell align="right">Reading, {figures.outputUnit}</TableCell>
            <TableCell align="right">Error, % of {figures.errorOf}</TableCell>
            <TableCell align="right" sx={WIDE_ONLY}>
              U, %
            </TableCell>
            <TableCell>Verdict</TableCell>
            {isOverDecades && <TableCell sx={WIDE_ONLY}>Decades</TableCell>}
            {run.madeWith.columns.map((column) => (
              <TableCell key={column} align="right" sx={WIDE_ONLY}>
                {columnHeading(run.madeWith, column)}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {readings.map((judged, index) => (
            <TableRow key={index}>
              <TableCell sx={{ whiteSpace: 'nowrap' }}>
                {judged.direction === 'up' ? '▲' : '▼'} {pointPercent(judged.nominalPercent)} %
                {judged.cycle > 1 && `, cycle ${judged.cycle}`}
              </TableCell>
              {(
                [
                  [run.readings[index]?.appliedText, {}],
                  [figures.output(judged.expected), WIDE_ONLY],
                  [run.readings[index]?.outputText, {}],
                  [figures.error(judged), {}],
                  [figures.uncertainty(judged) || '–', WIDE_ONLY],
                ] as const
              ).map(([text, sx], cell) => (
                <TableCell key={cell} align="right" sx={sx}>
                  <Figure>{text}</Figure>
                </TableCell>
              ))}
              <TableCell>
                <VerdictMark verdict={judged.verdict} isShort />
              </TableCell>
              {isOverDecades && (
                <TableCell sx={WIDE_ONLY}>
                  <Figure>{decadesOf(judged.applied, judged.output)}</Figure>
                </TableCell>
              )}
              {run.madeWith.columns.map((column) => (
                <TableCell key={column} align="right" sx={WIDE_ONLY}>
                  <Figure>{run.readings[index]?.more[column] ?? '–'}</Figure>
                </TableCell>
              ))}
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {readings.some(({ verdict }) => verdict === 'not-judged') && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          Not judged: cannot be judged with this standard, whose uncertainty there exceeds the limit.
        </Typography>
      )}
    </Box>
  );
}
