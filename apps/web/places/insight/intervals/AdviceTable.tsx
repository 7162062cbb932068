import { YEAR_DAYS } from '@barys/core/drift';
import { formatFixed } from '@barys/core/text';
import type { AdviceLine } from '@barys/store/intervals';
import Box from '@mui/material/Box';
import Link from 'next/link';
import { anomalyWords, reasonWords } from '@/places/instruments/history/words';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';

const daysOutside = (part: number | null): string =>
  part === null ? '—' : formatFixed(part * YEAR_DAYS, part > 0.03 ? 0 : 1);

/** What is advised in a word, with an arrow that says which way. */
function Advised({ line: { advised, monthsToday } }: { line: AdviceLine }) {
  const { kind, months } = advised.advice;
  if (kind === 'look') return <strong>look at it</strong>;
  if (kind === 'none') return 'too little known';
  if (kind === 'keep') return 'keep';
  if (months === monthsToday) return 'taken';
  return (
    <strong>
      {kind === 'shorter' ? '↓' : '↑'} {months}
    </strong>
  );
}

/** What the last calculation advised, line by line. */
export function AdviceTable({ lines, none }: { lines: readonly AdviceLine[]; none: string }) {
  return (
    <DataTable
      label="Advised intervals"
      rows={lines}
      keyOf={({ instrumentId }) => instrumentId}
      none={none}
      columns={[
        [
          'Instrument',
          ({ tag, service }) => (
            <>
              <Link prefetch={false} href={`/instruments/${encodeURIComponent(tag)}/history`}>
                {tag}
              </Link>{' '}
              {service}
            </>
          ),
        ],
        ['Months now', ({ monthsToday }) => <Figure>{monthsToday}</Figure>, 'right'],
        ['Advised', (line) => <Advised line={line} />],
        [
          'Why',
          ({ advised, anomalies }) => (
            <Box sx={{ minWidth: 320 }}>
              {advised.advice.reasons.slice(0, 1).map(reasonWords)}
              {anomalies.map((anomaly) => (
                <Box key={anomaly.kind} sx={{ color: 'text.secondary' }}>
                  {anomalyWords(anomaly)}
                </Box>
              ))}
            </Box>
          ),
        ],
        [
          'Bounds inside until',
          ({ advised: { insideUntil } }) => (
            <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
              {insideUntil === null ? '—' : showDate(insideUntil)}
            </Box>
          ),
        ],
        [
          'Days a year outside',
          ({ advised }) => <Figure>{daysOutside(advised.advice.now.outsidePart)}</Figure>,
          'right',
        ],
        ['Criticality', ({ criticality }) => criticality],
      ]}
    />
  );
}
