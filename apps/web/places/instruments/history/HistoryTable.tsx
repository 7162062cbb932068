import { formatSigned } from '@barys/core/text';
import type { AdjustmentMark, KeptRun, Visit } from '@barys/store/results';
import Box from '@mui/material/Box';
import Link from 'next/link';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { VerdictMark } from '@/ui/VerdictMark';

interface Row {
  readonly run: KeptRun;
  readonly visit: Visit;
}

const figure = (value: number | null, decimals = 3): string =>
  value === null ? '—' : formatSigned(value, decimals);

/** Words that stay on one line. */
const Whole = ({ children }: { children: string }) => (
  <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
    {children}
  </Box>
);

/** What was done in a job, as it was logged. */
const doneIn = (marks: readonly AdjustmentMark[], jobId: number | null): string =>
  marks
    .filter((mark) => mark.jobId === jobId)
    .map(({ kind, description, beforeText, afterText }) =>
      [kind === 'other' ? description : kind, `${beforeText} → ${afterText}`].filter(Boolean).join(' '),
    )
    .join('; ');

/** All calibrations, the newest first: the figures behind the drawing. */
export function HistoryTable({
  visits,
  marks,
}: {
  visits: readonly Visit[];
  marks: readonly AdjustmentMark[];
}) {
  const rows = [...visits]
    .reverse()
    .flatMap((visit) =>
      [visit.found, visit.left].flatMap((run): Row[] => (run === null ? [] : [{ run, visit }])),
    );
  return (
    <DataTable
      label="Calibrations"
      rows={rows}
      keyOf={({ run }) => run.id}
      columns={[
        [
          'When',
          ({ run }) =>
            run.jobId === null ? (
              <Whole>{showDate(run.doneOn)}</Whole>
            ) : (
              <Link prefetch={false} href={`/jobs/${run.jobId}/record`}>
                <Whole>{showDate(run.doneOn)}</Whole>
              </Link>
            ),
        ],
        ['Run', ({ run }) => <Whole>{run.kind === 'as-found' ? 'as found' : 'as left'}</Whole>],
        ['Verdict', ({ run }) => run.verdict !== null && <VerdictMark verdict={run.verdict} isShort />],
        ['Worst, of its limit', ({ run }) => <Figure>{figure(run.worstOfLimit, 2)}</Figure>, 'right'],
        ['Zero, %', ({ run }) => <Figure>{figure(run.zeroPercent)}</Figure>, 'right'],
        ['Span, %', ({ run }) => <Figure>{figure(run.spanPercent)}</Figure>, 'right'],
        [
          'Hysteresis, %',
          ({ run }) => (
            <Figure>{run.hysteresisPercent === null ? '—' : run.hysteresisPercent.toFixed(3)}</Figure>
          ),
          'right',
        ],
        ['Reference', ({ run }) => [run.standard, run.meter].filter(Boolean).join(', ') || '—'],
        [
          'Who',
          ({ run }) =>
            [run.doneBy, run.record, run.jobId === null ? 'brought in' : '', run.isAmended ? 'amended' : '']
              .filter(Boolean)
              .join(', '),
        ],
        ['Adjusted', ({ run, visit }) => (run.kind === 'as-left' ? doneIn(marks, visit.jobId) : '')],
        ['Range', ({ run }) => run.rangeKey],
      ]}
    />
  );
}
