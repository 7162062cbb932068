import { closedJobs, openJobs } from '@barys/store';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { JobTable } from '@/jobs/JobTable';
import { database } from '@/server/database';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Jobs' };

const LINES = 50;

export default async function JobsPage() {
  const [open, closed] = await Promise.all([openJobs(database(), LINES), closedJobs(database(), LINES)]);
  return (
    <>
      <Typography variant="h1" sx={{ mb: 1.5 }}>
        Jobs
      </Typography>
      <Box sx={{ display: 'grid', gap: 2 }}>
        <Sheet title="Open">
          <JobTable jobs={open} showInstrument empty="No job is open. Start one from an instrument." />
        </Sheet>
        <Sheet title="Signed" aside={`the last ${LINES}`}>
          <JobTable jobs={closed} showInstrument empty="No job has been signed yet." />
        </Sheet>
      </Box>
    </>
  );
}
