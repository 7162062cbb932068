import type { Amendment } from '@barys/store/jobs';
import { showMoment } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';

/** Whether an amendment counts, and who said so. */
function stateInWords({ state, reviewedBy, reviewedAt, reviewRemark }: Amendment): string {
  if (state === 'waits') return 'waits for a second person';
  if (reviewedBy === null || reviewedAt === null) return 'in force';
  const remark = reviewRemark === '' ? '' : `: ${reviewRemark}`;
  return `${state === 'refused' ? 'refused' : 'in force, agreed'} by ${reviewedBy}, ${showMoment(reviewedAt)}${remark}`;
}

/** Amendments of a closed record: both versions side by side. */
export function AmendmentList({ amendments }: { amendments: readonly Amendment[] }) {
  return (
    <DataTable
      label="Amendments"
      rows={amendments}
      keyOf={({ id }) => id}
      columns={[
        ['What', ({ what }) => what],
        ['As signed', ({ beforeText }) => (beforeText === '' ? 'nothing' : beforeText)],
        ['As amended', ({ afterText }) => afterText],
        ['Why', ({ reason }) => reason],
        ['Who', ({ amendedBy, amendedAt }) => `${amendedBy}, ${showMoment(amendedAt)}`],
        ['State', (one) => stateInWords(one)],
      ]}
    />
  );
}
