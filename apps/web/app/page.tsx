import { countOpenJobs, jobsSentBack, jobsToReview, openJobs } from '@barys/store/jobs';
import { findSite } from '@barys/store/people';
import { instrumentsDueNext, openFindings, referencesDueBy } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import { database } from '@/server/database';
import { localDate, showDate } from '@/server/dates';
import { Columns } from '@/ui/Columns';
import {
  DueNext,
  FindingsSheet,
  OpenJobsSheet,
  RunningOut,
  SentBackSheet,
  ToReviewSheet,
} from '@/places/today/sheets';

export const metadata = { title: 'Today' };

const REFERENCE_NOTICE_DAYS = 30;
const LINES = 8;

export default async function TodayPage() {
  const db = database();
  const now = new Date();
  const today = localDate(now);
  const [site, sentBack, findings, openCount, jobs, toReview, instruments, references] = await Promise.all([
    findSite(db),
    jobsSentBack(db, LINES),
    openFindings(db, LINES),
    countOpenJobs(db),
    openJobs(db, LINES),
    jobsToReview(db, LINES),
    instrumentsDueNext(db, LINES),
    referencesDueBy(db, dayjs(today).add(REFERENCE_NOTICE_DAYS, 'day').format('YYYY-MM-DD')),
  ]);
  return (
    <>
      <Typography variant="h1" sx={{ mb: 1.5 }}>
        Today, {showDate(now)}
      </Typography>
      <Columns columns="1.15fr 1fr">
        <DueNext
          instruments={instruments}
          inHand={new Map(jobs.map((job) => [job.tag, job.id]))}
          site={site}
          today={today}
        />
        <Box sx={{ display: 'grid', gap: 2 }}>
          <SentBackSheet sentBack={sentBack} />
          <FindingsSheet findings={findings} />
          <OpenJobsSheet jobs={jobs} openCount={openCount} />
          <ToReviewSheet toReview={toReview} />
          <RunningOut references={references} noticeDays={REFERENCE_NOTICE_DAYS} today={today} />
        </Box>
      </Columns>
    </>
  );
}
