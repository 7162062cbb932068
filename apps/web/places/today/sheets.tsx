/** The sheets of Today: each says what waits, and where to go for it. */
import type { JobLine, jobsSentBack } from '@barys/store/jobs';
import type { Site } from '@barys/store/people';
import type { DueStanding, OnTheWay } from '@barys/store/planning';
import type { Instrument, OpenFinding, referencesDueBy } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { STAGE_WORD } from '@/places/jobs/words';
import { DueCounts } from '@/places/planning/DueCounts';
import { clockAt, dayWord, dueState } from '@/places/planning/words';
import { dueInWords, showDate, showMoment } from '@/server/dates';
import { LineLink } from '@/ui/LineLink';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';
import { FirstSteps } from './FirstSteps';

/** When something is due, louder the later it is. */
function Due({ on, today, below }: { on: string; today: string; below: string }) {
  return (
    <>
      <Typography sx={{ fontWeight: on <= today ? 700 : 400, color: on < today ? 'var(--now)' : 'inherit' }}>
        {dueInWords(on, today)}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {below}
      </Typography>
    </>
  );
}

export function DueNext({
  instruments,
  inHand,
  site,
  today,
  standing,
  graceDays,
}: {
  instruments: readonly Instrument[];
  inHand: ReadonlyMap<string, number>;
  site: Site | null;
  today: string;
  standing: DueStanding;
  graceDays: number;
}) {
  const below = ({ tag, dueOn }: Instrument): string => {
    if (inHand.has(tag)) return `job ${inHand.get(tag)} is open`;
    return dueState(dueOn, today, graceDays) === 'in grace'
      ? `${showDate(dueOn)}, in grace`
      : showDate(dueOn);
  };
  return (
    <Sheet
      title="Due next"
      aside={
        <Link prefetch={false} href="/planning/due">
          calendar and list
        </Link>
      }
    >
      {instruments.length === 0 ? (
        <FirstSteps site={site} />
      ) : (
        <DueCounts standing={standing} graceDays={graceDays} />
      )}
      {instruments.map((instrument) => (
        <LineLink
          key={instrument.id}
          href={`/instruments/${instrument.tag}`}
          name={instrument.tag}
          about={`${instrument.service} · ${instrument.area}`}
          aside={<Due on={instrument.dueOn} today={today} below={below(instrument)} />}
        />
      ))}
    </Sheet>
  );
}

/** What is planned for whoever looks, today and on the next day that has something. */
export function YoursSheet({
  planned,
  today,
  dayBegins,
}: {
  planned: readonly OnTheWay[];
  today: string;
  dayBegins: string;
}) {
  const [first] = planned;
  if (first === undefined) return null;
  const own = planned.filter(({ day }) => day === first.day);
  return (
    <Sheet
      title={first.day === today ? 'Planned for you today' : `Planned for you, ${dayWord(first.day)}`}
      aside={
        <Link
          prefetch={false}
          href={`/planning/walks?${new URLSearchParams({ from: first.day, person: String(first.personId) })}`}
        >
          your walks
        </Link>
      }
    >
      {own.map(({ id, start, minutes, references, instrument }) => (
        <LineLink
          key={id}
          href={`/instruments/${encodeURIComponent(instrument.tag)}`}
          name={`${clockAt(dayBegins, start)} · ${instrument.tag}`}
          about={`${instrument.service} · ${instrument.area}`}
          aside={
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              {minutes} min{references.length === 0 ? '' : `, ${references.join(', ')}`}
            </Typography>
          }
        />
      ))}
    </Sheet>
  );
}

export function SentBackSheet({ sentBack }: { sentBack: Awaited<ReturnType<typeof jobsSentBack>> }) {
  if (sentBack.length === 0) return null;
  return (
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
  );
}

export function FindingsSheet({ findings }: { findings: readonly OpenFinding[] }) {
  if (findings.length === 0) return null;
  return (
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
                ...(undecided === 0 ? [] : [`${undecided} ${undecided === 1 ? 'run' : 'runs'} to decide`]),
                ...(isHeld ? ['held'] : []),
              ].join(', ')}
            </Typography>
          }
        />
      ))}
    </Sheet>
  );
}

export function OpenJobsSheet({ jobs, openCount }: { jobs: readonly JobLine[]; openCount: number }) {
  return (
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
  );
}

export function ToReviewSheet({ toReview }: { toReview: readonly JobLine[] }) {
  if (toReview.length === 0) return null;
  return (
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
  );
}

export function RunningOut({
  references,
  noticeDays,
  today,
}: {
  references: Awaited<ReturnType<typeof referencesDueBy>>;
  noticeDays: number;
  today: string;
}) {
  return (
    <Sheet title="References about to run out" aside={`within ${noticeDays} days`}>
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
            <Due
              on={reference.dueOn}
              today={today}
              below={reference.dueOn < today ? 'only with a reason' : showDate(reference.dueOn)}
            />
          </Box>
        </Box>
      ))}
    </Sheet>
  );
}
