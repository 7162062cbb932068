import { hasScrews, isDeviation, isZeroTrimmed, sequenceOf, trimsOf } from '@barys/core/adjust';
import { expectedOutput } from '@barys/core/signal';
import { unitLabel } from '@barys/core/units';
import { listBenches } from '@barys/store/benches';
import { StoreError } from '@barys/store/db';
import { asFoundRun, asLeftRun, guardedJob, type JobFile } from '@barys/store/jobs';
import { isSameRange } from '@barys/store/registers';
import { adviceOnRun, bodyOfRun, screwsAfter, type Run, receiverTrims } from '@barys/store/runs';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { database } from '@/server/database';
import { Columns } from '@/ui/Columns';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { Facts } from '@/ui/Facts';
import { figuresOfRun } from '@/ui/figures';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';
import { ActTaken, AdvisedAnew } from '@/places/jobs/advice/ActTaken';
import { OutcomeSheet } from '@/places/jobs/advice/OutcomeSheet';
import { Sequence } from '@/places/jobs/advice/Sequence';
import { AdjustmentTable } from '@/places/jobs/AdjustmentTable';
import { AdjustForm, LeaveAdjust, type AdjustEnds } from '@/places/jobs/AdjustForm';
import { WritePanel } from '@/places/jobs/overLink/WritePanel';
import { PlanSheet } from '@/places/jobs/PlanSheet';
import { RunSummary } from '@/places/jobs/RunSummary';

export function AdjustStage({ job }: { job: JobFile }) {
  const asFound = asFoundRun(job);
  if (asFound === null) throw new StoreError({ code: 'no-such', what: 'as-found run of job', name: job.id });
  const asLeft = asLeftRun(job);
  const before = asLeft ?? asFound;
  const { configuration } = job.instrument;
  const isConfigured = configuration.version !== before.madeWith.configuration.version;
  const decided = job.passed.filter(({ stage }) => stage === 'judge').at(-1)?.answers ?? [];
  const isRangeAwaited = !isConfigured && decided.some(({ answer }) => answer === 'range change');
  const isSameScale = isSameRange(configuration, before.madeWith.configuration);
  const pass = (asLeft?.pass ?? 0) + 1;
  const ofThisPass = job.adjustments.filter((adjustment) => adjustment.pass === pass);
  return (
    <Columns columns="1.5fr 1fr">
      <Stack sx={{ gap: 1.5 }}>
        <LogSheet job={job} before={before} asLeft={asLeft} made={ofThisPass} />
        <OverLink job={job} />
        <Sheet title="Adjustments">
          {job.adjustments.length === 0 ? (
            <Typography sx={{ color: 'text.secondary' }}>
              None yet. Zero first, then span, and again until both hold: they interact on most instruments.
            </Typography>
          ) : (
            <AdjustmentTable adjustments={job.adjustments} />
          )}
          <LeaveAdjust
            job={job.id}
            word={isSameScale ? 'Begin as left' : 'Connect for the new range'}
            isAnythingDone={isConfigured || ofThisPass.length > 0}
            canGoBack={!isConfigured && job.adjustments.length === 0}
          />
        </Sheet>
        <OutcomeSheet job={job} />
        <PlanSheet job={job} />
        <RangeSheet
          job={job}
          last={isConfigured ? before.madeWith.configuration : null}
          isAwaited={isRangeAwaited}
        />
      </Stack>
      <Stack sx={{ gap: 1.5 }}>
        <Sheet title={asLeft === null ? 'As found' : `As left, pass ${asLeft.pass}`}>
          <RunSummary run={before} />
        </Sheet>
        <CorridorSheet asFound={asFound} asLeft={asLeft} height={210} />
      </Stack>
    </Columns>
  );
}

/** What was read at both ends and in the middle, and what it should be. */
function endsOf(job: JobFile, before: Run, isSameScale: boolean): AdjustEnds {
  const { configuration } = job.instrument;
  const { lrv, urv } = configuration;
  const figures = figuresOfRun({ ...before.madeWith, configuration });
  const readAt = (percent: number) => {
    // In another range the last readings say nothing of this one.
    if (!isSameScale) return '';
    const point = before.madeWith.points.find(({ nominalPercent }) => nominalPercent === percent);
    const read = before.readings.find(({ position }) => position === point?.position);
    if (read === undefined) return '';
    return isDeviation(read.outputText) ? figures.output(read.output) : read.outputText;
  };
  const endAt = (percent: number, applied: number) => ({
    applied: figures.input(applied),
    aim: figures.output(expectedOutput(configuration, applied)),
    before: readAt(percent),
  });
  // A zero trim takes what is there for nothing; that is a point of the run only where the range begins there.
  const isTrim = isZeroTrimmed(bodyOfRun(before, job.instrument.body));
  return {
    'true zero': isTrim ? { ...endAt(0, 0), before: lrv === 0 ? readAt(0) : '' } : endAt(0, lrv),
    zero: endAt(0, lrv),
    span: endAt(100, urv),
    middle: endAt(50, (lrv + urv) / 2),
  };
}

/** What is to be done, and the log of it. */
async function LogSheet({
  job,
  before,
  asLeft,
  made,
}: {
  job: JobFile;
  /** The run that counts, as found or as left. */
  before: Run;
  asLeft: Run | null;
  /** What is logged in this pass. */
  made: JobFile['adjustments'];
}) {
  const { configuration, kind } = job.instrument;
  const isSameScale = isSameRange(configuration, before.madeWith.configuration);
  const figures = figuresOfRun({ ...before.madeWith, configuration });
  const body = bodyOfRun(before, job.instrument.body);
  const taken = job.advice.at(-1);
  const steps = sequenceOf(kind, body);
  const advice = isSameScale ? adviceOnRun(before, body, job.isRangeWrong) : null;
  const pass = (asLeft?.pass ?? 0) + 1;
  return (
    <Sheet title="Log what was done" aside={pass > 1 ? `pass ${pass}` : undefined}>
      {asLeft !== null && advice !== null ? (
        <AdvisedAnew advice={advice} body={body} />
      ) : (
        taken !== undefined && isSameScale && <ActTaken advice={taken} body={body} />
      )}
      {steps !== null && <Sequence steps={steps} made={made} />}
      <AdjustForm
        key={configuration.version}
        job={job.id}
        inputUnit={figures.inputUnit}
        output={{ unit: figures.outputUnit, decimals: decimalsOf(figures.output(0)) }}
        range={configuration}
        ends={endsOf(job, before, isSameScale)}
        madeCount={made.length}
        act={asLeft === null ? (taken?.content.act ?? null) : (advice?.lead ?? null)}
        screws={advice === null || !hasScrews(body) ? null : screwsAfter(before, advice, made)}
        spanScrew={trimsOf(body).includes('range wheel') ? 'range wheel' : 'span screw'}
        receivers={receiverTrims(before)}
        guarded={await guardedJob(database(), job.id, job.instrument)}
      />
    </Sheet>
  );
}

/** Decimals that a figure is shown with. */
const decimalsOf = (text: string): number => text.split('.')[1]?.length ?? 0;

/** What is changed at the instrument itself; only a current says what became of it. */
async function OverLink({ job: { id, tag, instrument } }: { job: JobFile }) {
  const { outputUnit, inputUnit } = instrument.configuration;
  if (outputUnit !== 'mA') return null;
  return (
    <WritePanel
      job={id}
      tag={tag}
      inputUnit={unitLabel(inputUnit)}
      benches={await listBenches(database(), new Date())}
    />
  );
}

function RangeSheet({
  job,
  last,
  isAwaited,
}: {
  job: JobFile;
  /** The range of the last run, where that was another. */
  last: Parameters<typeof rangeInWords>[0] | null;
  /** Whether it was decided that the range changes, and it has not yet. */
  isAwaited: boolean;
}) {
  const { configuration } = job.instrument;
  return (
    <Sheet
      title="Range"
      aside={
        <LinkButton
          href={`/instruments/${encodeURIComponent(job.tag)}/configure?job=${job.id}`}
          isMain={isAwaited}
        >
          Set another range
        </LinkButton>
      }
    >
      <Facts
        facts={[
          ['In force', `${rangeInWords(configuration)}, version ${configuration.version}`],
          ...(last === null ? [] : [['Last run', rangeInWords(last)] as const]),
        ]}
      />
    </Sheet>
  );
}
