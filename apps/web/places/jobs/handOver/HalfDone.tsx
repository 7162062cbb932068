import type { HandedOver } from '@barys/store/jobs';
import Link from 'next/link';
import { REASON_WORD, STAGE_WORD } from '@/places/jobs/words';
import { showMoment } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Sheet } from '@/ui/Sheet';

const instrument = ({ id, tag, service }: HandedOver) => (
  <>
    <Link prefetch={false} href={`/jobs/${id}`}>
      {tag}
    </Link>{' '}
    {service}
  </>
);

/** Jobs that are begun and not signed. */
export function HalfDone({ jobs }: { jobs: readonly HandedOver[] }) {
  return (
    <Sheet title="Half done" aside="the longest untouched first">
      <DataTable
        label="Half done"
        rows={jobs}
        keyOf={({ id }) => id}
        none="No job is open."
        columns={[
          [
            'Job',
            ({ id }) => (
              <Link prefetch={false} href={`/jobs/${id}`}>
                {id}
              </Link>
            ),
          ],
          ['Instrument', instrument],
          ['Why', ({ reason }) => REASON_WORD[reason]],
          [
            'Stage',
            ({ stage, points }) =>
              points === null
                ? STAGE_WORD[stage]
                : `${STAGE_WORD[stage]}, ${points.done} of ${points.of} points`,
          ],
          ['Last by', ({ lastBy }) => lastBy],
          ['Last touched', ({ lastAt }) => showMoment(lastAt)],
          ['Opened', ({ openedBy, openedAt }) => `${showMoment(openedAt)}, ${openedBy}`],
        ]}
      />
    </Sheet>
  );
}
