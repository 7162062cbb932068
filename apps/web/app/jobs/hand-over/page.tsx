import { handOver } from '@barys/store/jobs';
import Alert from '@mui/material/Alert';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { HalfDone } from '@/places/jobs/handOver/HalfDone';
import { RightNow } from '@/places/jobs/handOver/RightNow';
import { database } from '@/server/database';
import { showMoment } from '@/server/dates';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { PrintButton } from '@/ui/PrintButton';

export const metadata = { title: 'Hand-over' };

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
