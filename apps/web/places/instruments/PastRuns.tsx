import { formatSigned } from '@barys/core/text';
import type { PastRun } from '@barys/store/registers';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { VerdictMark } from '@/ui/VerdictMark';

/** Runs that were imported: history to look at, not records of Barys. */
export function PastRuns({ runs }: { runs: readonly PastRun[] }) {
  return (
    <DataTable
      label="Results brought in"
      rows={runs}
      keyOf={({ doneOn, kind }) => `${doneOn} ${kind}`}
      columns={[
        ['When', ({ doneOn }) => showDate(doneOn)],
        ['Run', ({ kind }) => (kind === 'as-found' ? 'as found' : 'as left')],
        ['Readings', ({ readings }) => readings],
        [
          'Worst error',
          ({ worst }) => <Figure>{worst === null ? '—' : `${formatSigned(worst, 3)} %`}</Figure>,
        ],
        ['Verdict', ({ verdict }) => verdict !== null && <VerdictMark verdict={verdict} isShort />],
        ['Who, record', ({ doneBy, certificate }) => [doneBy, certificate].filter(Boolean).join(', ')],
      ]}
    />
  );
}
