import { handOver, type HandedOver } from '@barys/store/jobs';
import Alert from '@mui/material/Alert';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { RightNow } from '@/places/jobs/handOver/RightNow';
import { REASON_WORD, STAGE_WORD } from '@/places/jobs/words';
import { database } from '@/server/database';
import { showMoment } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { PrintButton } from '@/ui/PrintButton';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Hand-over' };

const instrument = ({ id, tag, service }: HandedOver) => (
  <>
    <Link prefetch={false} href={`/jobs/${id}`}>
      {tag}
    </Link>{' '}
    {service}
  </>
);

/** Jobs that are begun and not signed. */
function HalfDone({ jobs }: { jobs: readonly HandedOver[] }) {
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

export default async function HandOverPage() {
  const { jobs, isCut } = await handOver(database());
  return (
    <>
      <PageHead title="Hand-over" about={`As it stands ${showMoment(new Date())}.`}>
        <PrintButton />
        <LinkButton href="/jobs">All jobs</LinkButton>
      </PageHead>
      {isCut && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1.5 }}>
          More is in hand than this page can name: what was touched last is not here. The list of jobs has
          all.
        </Alert>
      )}
      <Stack sx={{ gap: 1.5 }}>
        <RightNow jobs={jobs} />
        <HalfDone jobs={jobs.filter(({ isOpen }) => isOpen)} />
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          This page says what was entered in jobs. It is no permit and no proof that a line is safe: the
          permit to work, the shift log and your own look at the place come first.
        </Typography>
      </Stack>
    </>
  );
}
