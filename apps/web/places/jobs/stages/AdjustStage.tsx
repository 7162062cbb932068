import { unitLabel } from '@barys/core/units';
import { listBenches } from '@barys/store/benches';
import { StoreError } from '@barys/store/db';
import { asFoundRun, asLeftRun, type JobFile } from '@barys/store/jobs';
import { isSameRange } from '@barys/store/registers';
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
import { AdjustmentTable } from '@/places/jobs/AdjustmentTable';
import { AdjustForm, LeaveAdjust } from '@/places/jobs/AdjustForm';
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
  const figures = figuresOfRun({ ...before.madeWith, configuration });
  const readAt = (percent: number) => {
    // In another range the last readings say nothing of this one.
    if (!isSameScale) return '';
    const point = before.madeWith.points.find(({ nominalPercent }) => nominalPercent === percent);
    return before.readings.find(({ position }) => position === point?.position)?.outputText ?? '';
  };
  const pass = (asLeft?.pass ?? 0) + 1;
  const ofThisPass = job.adjustments.filter((adjustment) => adjustment.pass === pass);
  return (
    <Columns columns="1.5fr 1fr">
      <Stack sx={{ gap: 1.5 }}>
        <Sheet title="Log what was done" aside={pass > 1 ? `pass ${pass}` : undefined}>
          <AdjustForm
            key={configuration.version}
            job={job.id}
            inputUnit={figures.inputUnit}
            outputUnit={figures.outputUnit}
            ends={{
              zero: {
                applied: figures.input(configuration.lrv),
                aim: figures.output(configuration.outputLow),
                before: readAt(0),
              },
              span: {
                applied: figures.input(configuration.urv),
                aim: figures.output(configuration.outputHigh),
                before: readAt(100),
              },
            }}
            madeCount={ofThisPass.length}
          />
        </Sheet>
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
