import { countOpenJobs, jobsSentBack, jobsToReview, openJobs } from '@barys/store/jobs';
import { findSite } from '@barys/store/people';
import { instrumentsDueNext, openFindings, referencesDueBy } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import Link from 'next/link';
import { database } from '@/server/database';
import { dueInWords, localDate, showDate, showMoment } from '@/server/dates';
import { STAGE_WORD } from '@/places/jobs/words';
import { Columns } from '@/ui/Columns';
import { FirstSteps } from '@/places/today/FirstSteps';
import { LineLink } from '@/ui/LineLink';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';

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
  const inHand = new Map(jobs.map((job) => [job.tag, job.id]));
  return (
    <>
      <Typography variant="h1" sx={{ mb: 1.5 }}>
        Today, {showDate(now)}
      </Typography>
      <Columns columns="1.15fr 1fr">
        <Sheet title="Due next">
          {instruments.length === 0 && <FirstSteps site={site} />}
          {instruments.map((instrument) => (
            <LineLink
              key={instrument.id}
              href={`/instruments/${instrument.tag}`}
              name={instrument.tag}
              about={`${instrument.service} · ${instrument.area}`}
              aside={
                <>
                  <Typography
                    sx={{
                      fontWeight: instrument.dueOn <= today ? 700 : 400,
                      color: instrument.dueOn < today ? 'var(--now)' : 'inherit',
                    }}
                  >
                    {dueInWords(instrument.dueOn, today)}
                  </Typography>
                  <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                    {inHand.has(instrument.tag)
                      ? `job ${inHand.get(instrument.tag)} is open`
                      : showDate(instrument.dueOn)}
                  </Typography>
                </>
              }
            />
          ))}
        </Sheet>
        <Box sx={{ display: 'grid', gap: 2 }}>
          {sentBack.length > 0 && (
            <Sheet title="Sent back by the review">
              {sentBack.map(({ id, tag, service, why, by }) => (
                <LineLink
                  key={id}
                  href={`/jobs/${id}`}
                  name={`${id} · ${tag}`}
                  about={service}
                  aside={
                    <Typography variant="body2" sx={{ fontWeight: 700, maxWidth: 260 }}>
                      {why} ({by})
                    </Typography>
                  }
                />
              ))}
            </Sheet>
          )}
          {findings.length > 0 && (
            <Sheet title="References found out of tolerance">
              {findings.map(({ id, reference, foundOn, undecided, isHeld }) => (
                <LineLink
                  key={id}
                  href={`/references/${reference}/findings/${id}`}
                  name={reference}
                  about={`found on ${showDate(foundOn)}`}
                  aside={
                    <Typography variant="body2" sx={{ fontWeight: 700 }}>
                      {[
                        ...(undecided === 0
                          ? []
                          : [`${undecided} ${undecided === 1 ? 'run' : 'runs'} to decide`]),
                        ...(isHeld ? ['held'] : []),
                      ].join(', ')}
                    </Typography>
                  }
                />
              ))}
            </Sheet>
          )}
          <Sheet
            title="Open jobs"
            aside={openCount > jobs.length ? `the newest ${jobs.length} of ${openCount}` : undefined}
          >
            {jobs.length === 0 && (
              <Typography sx={{ color: 'text.secondary' }}>
                None. Open an instrument that is due and start its job.
              </Typography>
            )}
            {jobs.map((job) => (
              <LineLink
                key={job.id}
                href={`/jobs/${job.id}`}
                name={`${job.id} · ${job.tag}`}
                about={job.service}
                aside={
                  <>
                    <Typography sx={{ fontWeight: 700 }}>{STAGE_WORD[job.stage]}</Typography>
                    <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                      {job.openedBy}, {showMoment(job.openedAt)}
                    </Typography>
                  </>
                }
              />
            ))}
            {openCount > jobs.length && <LinkButton href="/jobs">All {openCount} open jobs</LinkButton>}
          </Sheet>
          {toReview.length > 0 && (
            <Sheet title="To review" aside="the longest waiting first">
              {toReview.map((job) => (
                <LineLink
                  key={job.id}
                  href={`/jobs/${job.id}/record`}
                  name={`${job.id} · ${job.tag}`}
                  about={job.service}
                  aside={
                    <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                      signed by {job.signedBy}
                    </Typography>
                  }
                />
              ))}
            </Sheet>
          )}
          <Sheet title="References about to run out" aside={`within ${REFERENCE_NOTICE_DAYS} days`}>
            {references.length === 0 && <Typography sx={{ color: 'text.secondary' }}>None.</Typography>}
            {references.map((reference) => (
              <Box
                key={reference.tag}
                sx={{
                  display: 'flex',
                  gap: 2,
                  py: 0.75,
                  borderTop: '1px solid var(--rule)',
                  alignItems: 'center',
                }}
              >
                <Box>
                  <Typography sx={{ fontWeight: 700, lineHeight: 1.25 }}>
                    <Link prefetch={false} href={`/references/${reference.tag}`}>
                      {reference.tag}
                    </Link>
                  </Typography>
                  <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                    {reference.description} · certificate {reference.certificate}
                  </Typography>
                </Box>
                <Box sx={{ ml: 'auto', textAlign: 'right', whiteSpace: 'nowrap' }}>
                  <Typography
                    sx={{
                      fontWeight: reference.dueOn < today ? 700 : 400,
                      color: reference.dueOn < today ? 'var(--now)' : 'inherit',
                    }}
                  >
                    {dueInWords(reference.dueOn, today)}
                  </Typography>
                  <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                    {reference.dueOn < today ? 'only with a reason' : showDate(reference.dueOn)}
                  </Typography>
                </Box>
              </Box>
            ))}
          </Sheet>
        </Box>
      </Columns>
    </>
  );
}
