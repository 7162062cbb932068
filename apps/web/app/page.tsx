import { countOpenJobs, jobsSentBack, jobsToReview, openJobs } from '@barys/store/jobs';
import { findSite } from '@barys/store/people';
import { dueStanding, plannedWalks, planSite } from '@barys/store/planning';
import { instrumentsDueNext, openFindings, referencesDueBy } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import { database } from '@/server/database';
import { localDate, showDate } from '@/server/dates';
import { actingPerson } from '@/server/person';
import { Columns } from '@/ui/Columns';
import {
  DueNext,
  FindingsSheet,
  OpenJobsSheet,
  RunningOut,
  SentBackSheet,
  ToReviewSheet,
  YoursSheet,
} from '@/places/today/sheets';

export const metadata = { title: 'Today' };

const REFERENCE_NOTICE_DAYS = 30;
const LINES = 8;
/** What is planned for the person is shown so far ahead: over a weekend too. */
const AHEAD_DAYS = 4;

export default async function TodayPage() {
  const db = database();
  const now = new Date();
  const today = localDate(now);
  const person = await actingPerson();
  const ahead = dayjs(today).add(AHEAD_DAYS, 'day').format('YYYY-MM-DD');
  const [
    planned,
    standing,
    ways,
    site,
    sentBack,
    findings,
    openCount,
    jobs,
    toReview,
    instruments,
    references,
  ] = await Promise.all([
    person === null ? [] : plannedWalks(db, today, ahead, person.id),
    dueStanding(db, today),
    planSite(db),
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
          standing={standing}
          graceDays={ways.graceDays}
        />
        <Box sx={{ display: 'grid', gap: 2 }}>
          <YoursSheet planned={planned} today={today} dayBegins={ways.dayBegins} />
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
