import type { PressureKind } from '@barys/core/units';
import { sealOfJob, shortHash, type Seal } from '@barys/store/db';
import {
  amendedRun,
  amendmentsOfJob,
  asFoundRun,
  asLeftRun,
  isOwnWork,
  type Connection,
  type Amendment,
  type JobFile,
} from '@barys/store/jobs';
import { hasPassword } from '@barys/store/people';
import { doubtsOfJob } from '@barys/store/registers';
import type { Run } from '@barys/store/runs';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { AdviceRecord } from '@/places/jobs/advice/OutcomeSheet';
import { LoopRecord } from '@/places/jobs/loop/LoopRecord';
import { CauseRecord } from '@/places/jobs/suspects/CauseRecord';
import { AdjustmentTable } from '@/places/jobs/AdjustmentTable';
import { AmendForm } from '@/places/jobs/AmendForm';
import { amendablesOf } from '@/places/jobs/amendables';
import { AmendmentList } from '@/places/jobs/AmendmentList';
import { AmendmentReview } from '@/places/jobs/AmendmentReview';
import { Besides } from '@/places/jobs/Besides';
import { JobHead } from '@/places/jobs/JobHead';
import { Attachments } from '@/places/jobs/Attachments';
import { ReviewForm } from '@/places/jobs/ReviewForm';
import { RunSummary } from '@/places/jobs/RunSummary';
import { BesideTable } from '@/places/jobs/BesideTable';
import { RunTable } from '@/places/jobs/RunTable';
import { StageHistory } from '@/places/jobs/StageHistory';
import {
  checkInWords,
  daysInWords,
  doubtsInWords,
  headInWords,
  leakInWords,
  PLACE_WORD,
  REASON_WORD,
  sinceFacts,
  STAGE_WORD,
} from '@/places/jobs/words';
import { ValveMoves } from '@/places/jobs/ValveMoves';
import { certificateWords } from '@/places/references/words';
import { database } from '@/server/database';
import { linkWords, rawWords } from '@/places/jobs/sources';
import { showMoment } from '@/server/dates';
import { actingPerson } from '@/server/person';
import { Columns } from '@/ui/Columns';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { Facts } from '@/ui/Facts';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';
import { loadJobOr404 } from '@/places/jobs/load';

/** How far the two clocks may be apart before the record says so. */
const MOST_LAG_MS = 2 * 60 * 1000;

type Params = Promise<{ id: string }>;

export async function generateMetadata({ params }: { params: Params }) {
  return { title: `Record of job ${(await params).id}` };
}

export default async function RecordPage({ params }: { params: Params }) {
  const job = await loadJobOr404((await params).id);
  const asFound = asFoundRun(job);
  const asLeft = asLeftRun(job);
  const [amendments, seal, doubts] = await Promise.all([
    amendmentsOfJob(database(), job.id),
    sealOfJob(database(), job.id),
    doubtsOfJob(database(), job.id),
  ]);
  return (
    <>
      <JobHead job={job} />
      <Papers job={job} />
      {doubts.length > 0 && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1.5 }}>
          {doubtsInWords(doubts).map((line) => (
            <div key={line}>{line}</div>
          ))}
        </Alert>
      )}
      <Columns columns="1fr 1fr">
        {job.stage === 'review' && <Review job={job} />}
        <Visit job={job} seal={seal} />
        {asFound !== null && <CorridorSheet asFound={asFound} asLeft={asLeft} height={240} />}
        {job.runs.map((run) => (
          <RunRecord key={run.id} run={run} amendments={amendments} />
        ))}
        {job.adjustments.length > 0 && (
          <Sheet title="Adjustments" sx={{ gridColumn: '1 / -1' }}>
            <AdjustmentTable adjustments={job.adjustments} />
          </Sheet>
        )}
        <LoopRecord asFound={asFound} asLeft={asLeft} />
        <CauseRecord job={job} />
        <AdviceRecord job={job} />
        {amendments.length > 0 && (
          <Sheet title="Amendments" sx={{ gridColumn: '1 / -1' }}>
            <AmendmentList amendments={amendments} />
          </Sheet>
        )}
        {job.stage === 'closed' && (
          <Sheet title="Amend this record" sx={{ gridColumn: '1 / -1' }}>
            <Amend key={amendments.length} job={job} amendments={amendments} />
          </Sheet>
        )}
        {job.moves.length > 0 && (
          <Sheet title="Valves" sx={{ gridColumn: '1 / -1' }}>
            <ValveMoves arrangement={job.instrument.hookUp} moves={job.moves} />
          </Sheet>
        )}
        <Besides job={job} />
        <Attachments job={job} />
        <Sheet title="How the job went" sx={{ gridColumn: '1 / -1' }}>
          <StageHistory job={job} />
        </Sheet>
      </Columns>
    </>
  );
}

/** What can be taken along: the certificate and the label once signed, and the figures. */
function Papers({ job }: { job: JobFile }) {
  return (
    <Stack direction="row" sx={{ gap: 1, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
      {job.signedAt !== null && job.runs.length === 0 ? (
        <Typography sx={{ fontWeight: 700 }}>Signed. Without a run there is no certificate.</Typography>
      ) : job.signedAt !== null ? (
        <>
          <Button variant="contained" component="a" href={`/jobs/${job.id}/certificate`} download>
            Download certificate (PDF)
          </Button>
          <LinkButton href={`/jobs/${job.id}/label`} isFile>
            Label (PDF)
          </LinkButton>
        </>
      ) : (
        <>
          <Typography sx={{ fontWeight: 700 }}>
            {job.cancelledAt === null
              ? 'Not signed yet: this is the record so far.'
              : 'Cancelled: nothing was signed.'}
          </Typography>
          {job.cancelledAt === null && (
            <LinkButton href={`/jobs/${job.id}`} isMain>
              Back to {STAGE_WORD[job.stage]}
            </LinkButton>
          )}
        </>
      )}
      <LinkButton href={`/jobs/${job.id}/readings.csv`} isFile>
        Readings (CSV)
      </LinkButton>
      <LinkButton href={`/api/v1/jobs/${job.id}`} isFile>
        Job (JSON)
      </LinkButton>
      <LinkButton href={`/instruments/${job.tag}`}>Instrument {job.tag}</LinkButton>
    </Stack>
  );
}

async function Amend({ job, amendments }: { job: JobFile; amendments: readonly Amendment[] }) {
  const person = await actingPerson();
  const has = person !== null && (await hasPassword(database(), person.id));
  return (
    <>
      {amendments
        .filter(({ state }) => state === 'waits')
        .map(({ id, what, beforeText, afterText, amendedBy }) => (
          <Box key={id} sx={{ mb: 2 }}>
            <AmendmentReview
              amendment={id}
              words={`${amendedBy} amends ${what}: “${beforeText === '' ? 'nothing' : beforeText}” to “${afterText}”. It counts when a second person agrees, who had no hand in the job.`}
              hasPassword={has}
            />
          </Box>
        ))}
      <AmendForm job={job.id} choices={amendablesOf(job, amendments)} hasPassword={has} />
    </>
  );
}

function Visit({ job, seal }: { job: JobFile; seal: Seal | null }) {
  return (
    <Sheet title="Visit">
      <Facts
        facts={[
          ['Why', REASON_WORD[job.reason]],
          ['Opened', `${showMoment(job.openedAt)}, ${job.openedBy}`],
          ['Readings taken', daysInWords(job.runs)],
          ...(job.cancelledAt === null
            ? []
            : [
                [
                  'Cancelled',
                  `${showMoment(job.cancelledAt)}, ${job.cancelledBy ?? ''}: ${job.cancelReason}`,
                ] as const,
              ]),
          ...sinceFacts(job),
          [
            'Signed',
            job.signedAt === null ? 'not yet' : `${showMoment(job.signedAt)}, ${job.signedBy ?? ''}`,
          ],
          ...(job.remark === '' ? [] : [['Remark', job.remark] as const]),
          ...(job.signedAt === null
            ? []
            : [
                [
                  'Reviewed',
                  job.reviewedAt === null
                    ? job.stage === 'review'
                      ? 'waits for a second person'
                      : 'not asked for when it was signed'
                    : `${showMoment(job.reviewedAt)}, ${job.reviewedBy ?? ''}${job.reviewRemark === '' ? '' : `: ${job.reviewRemark}`}`,
                ] as const,
              ]),
          ...(seal === null ? [] : [['Seal', `${seal.number}, ${shortHash(seal.hash)}`] as const]),
          ...job.connections.flatMap((connection, index) =>
            connectionFacts(connection, job.instrument.kind).map(([name, value]): Fact => [
              index === 0 ? name : `${name}, again`,
              value,
            ]),
          ),
        ]}
      />
    </Sheet>
  );
}

async function Review({ job }: { job: JobFile }) {
  const person = await actingPerson();
  if (person === null) return null;
  const isReviewer = ['reviewer', 'technician', 'administrator'].includes(person.role);
  const isOwn = await isOwnWork(database(), person.id, job.id);
  return (
    <Sheet title="Review" sx={{ gridColumn: '1 / -1' }}>
      <ReviewForm
        job={job.id}
        name={person.name}
        signedBy={job.signedBy ?? ''}
        why={
          !isReviewer
            ? `It waits for a second person; the role ${person.role} does not review.`
            : isOwn
              ? 'It waits for a second person: you had a hand in this job.'
              : null
        }
        hasPassword={await hasPassword(database(), person.id)}
      />
    </Sheet>
  );
}

/** A reading that reached the server long after it was taken, or by a clock that was wrong. */
const isTakenEarlier = ({ takenAt, readAt }: Run['readings'][number]): boolean =>
  takenAt !== null && Math.abs(readAt.valueOf() - takenAt.valueOf()) > MOST_LAG_MS;

function RunRecord({ run, amendments }: { run: Run; amendments: readonly Amendment[] }) {
  const name = `${run.kind === 'as-found' ? 'As found' : 'As left'}${run.pass > 1 ? `, pass ${run.pass}` : ''}${run.thrownAway === null ? '' : ' (thrown away)'}`;
  const amended = amendedRun(run, amendments);
  return (
    <Sheet title={name} aside={`${run.startedBy}, ${showMoment(run.startedAt)}`}>
      {run.thrownAway !== null && (
        <Typography sx={{ fontWeight: 700, mb: 1 }}>
          Does not count: {run.thrownAway.reason} ({run.thrownAway.by},{' '}
          {showMoment(new Date(run.thrownAway.at))})
        </Typography>
      )}
      <RunSummary run={run} />
      {amended !== null && (
        <Box sx={{ mt: 1.5 }}>
          <Typography sx={{ fontWeight: 700 }}>With the readings as amended</Typography>
          <RunSummary run={amended} />
        </Box>
      )}
      <Box sx={{ mt: 1.5 }}>
        <RunTable run={run} />
        <BesideTable run={run} />
      </Box>
      <Sources run={run} />
      {run.readings.some(isTakenEarlier) && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          Taken before they were typed in:{' '}
          {run.readings
            .filter(isTakenEarlier)
            .map(({ position, takenAt, readAt }) =>
              takenAt === null
                ? ''
                : `point ${position} at ${showMoment(takenAt)}, typed ${showMoment(readAt)}`,
            )
            .join('; ')}
        </Typography>
      )}
      {run.marks.length > 0 && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          Beside the readings:{' '}
          {run.marks
            .map(
              ({ position, kind, remark, appliedText, outputText, markedBy }) =>
                `point ${position} ${kind}${[remark, appliedText, outputText].filter(Boolean).length === 0 ? '' : `: ${[remark, appliedText, outputText].filter(Boolean).join(', ')}`} (${markedBy})`,
            )
            .join('; ')}
        </Typography>
      )}
      {run.superseded.length > 0 && (
        <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
          Corrected since and kept:{' '}
          {run.superseded
            .map(
              ({ position, outputText, readBy, readAt }) =>
                `point ${position} read ${outputText} (${readBy}, ${showMoment(readAt)})`,
            )
            .join('; ')}
        </Typography>
      )}
    </Sheet>
  );
}

/** Which readings nobody typed, and what came over the wire for them. */
function Sources({ run }: { run: Run }) {
  const lines = linkWords(run);
  if (lines.length === 0) return null;
  const raw = run.readings.filter(({ source }) => source !== null);
  return (
    <Box sx={{ mt: 1 }}>
      {lines.map((line) => (
        <Typography key={line} variant="body2">
          {line}
        </Typography>
      ))}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        As it came: {raw.map((one) => `point ${one.position}: ${rawWords(one)}`).join('; ')}
      </Typography>
    </Box>
  );
}

type Fact = readonly [name: string, value: string];

/** What was connected, and in which air. */
function connectionFacts(connection: Connection, kind: PressureKind): Fact[] {
  return [
    ['Reference', `${connection.pressureReference.tag}, ${certificateWords(connection.pressureReference)}`],
    ...(connection.secondReference === null
      ? []
      : [
          [
            'Second reference',
            `${connection.secondReference.tag}, ${certificateWords(connection.secondReference)}`,
          ] as const,
        ]),
    [
      'Meter',
      connection.meter === null
        ? 'none: read by eye'
        : `${connection.meter.tag}, ${certificateWords(connection.meter)}`,
    ],
    ['Place', PLACE_WORD[connection.place]],
    ...(connection.leak === null ? [] : [['Leak check', leakInWords(connection.leak)] as const]),
    ...(connection.heightM === 0 ? [] : [['Height', headInWords(connection)] as const]),
    [
      'Ambient',
      `${connection.ambient.temperatureC} °C, ${connection.ambient.humidityPercent} %, ${connection.ambient.barometerHpa} hPa`,
    ],
    ...(connection.referenceReason === ''
      ? []
      : [['Used though unfit', connection.referenceReason] as const]),
    ['Checked', connection.checksDone.map((check) => checkInWords(check, kind)).join('; ') || 'nothing'],
  ];
}
