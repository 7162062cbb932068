import type { JobListLine } from '@barys/store/jobs';
import { showMoment } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';

/** The lists of a job as they stand on its record. */
export function ListRecord({ lines }: { lines: readonly JobListLine[] }) {
  return (
    <DataTable
      label="Lines, and who ticked them"
      rows={lines}
      keyOf={({ id }) => id}
      columns={[
        ['List', ({ list }) => list],
        ['Line', ({ text }) => text],
        [
          'Done',
          ({ isDone, doneBy, doneAt }) =>
            isDone && doneAt !== null ? `${doneBy ?? ''}, ${showMoment(doneAt)}` : 'not ticked',
        ],
      ]}
    />
  );
}
