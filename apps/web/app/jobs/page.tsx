import { closedJobs, jobsToReview, openJobs } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { JobTable } from '@/places/jobs/JobTable';
import { database } from '@/server/database';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Jobs' };

const LINES = 50;

export default async function JobsPage() {
  const db = database();
  const [open, toReview, closed] = await Promise.all([
    openJobs(db, LINES),
    jobsToReview(db, LINES),
    closedJobs(db, LINES),
  ]);
  return (
    <>
      <Typography variant="h1" sx={{ mb: 1.5 }}>
        Jobs
      </Typography>
      <Box sx={{ display: 'grid', gap: 2 }}>
        <Sheet title="Open">
          <JobTable jobs={open} showInstrument empty="No job is open. Start one from an instrument." />
        </Sheet>
        <Sheet title="To review" aside="signed, waiting for a second person">
          <JobTable jobs={toReview} showInstrument empty="Nothing waits for a review." />
        </Sheet>
        <Sheet title="Signed or cancelled" aside={`the last ${LINES}`}>
          <JobTable jobs={closed} showInstrument empty="No job has been signed yet." />
        </Sheet>
      </Box>
    </>
  );
}
