import type { Amendment } from '@barys/store';
import { showMoment } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';

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
      ]}
    />
  );
}
