import { HOOK_UPS } from '@barys/core/hookup';
import {
  asFoundRun,
  asLeftRun,
  circumstancesOf,
  questionsAt,
  valvesOfJob,
  type JobFile,
  type ValveStage,
} from '@barys/store/jobs';
import { vesselsOf } from '@barys/store/registers';
import { evaluateStoredRun } from '@barys/store/runs';
import Stack from '@mui/material/Stack';
import { Columns } from '@/ui/Columns';
import { Sheet } from '@/ui/Sheet';
import { OutcomeSheet } from '@/places/jobs/advice/OutcomeSheet';
import { AdjustAgain } from '@/places/jobs/AdjustAgain';
import { AskedForm } from '@/places/jobs/AskedForm';
import { Caution, SITE_RULES_FIRST } from '@/places/jobs/Caution';
import { RunSummary } from '@/places/jobs/RunSummary';
import { BiasTable } from '@/places/jobs/BiasTable';
import { database } from '@/server/database';
import { LinkButton } from '@/ui/LinkButton';
import { SetupPanel } from '@/places/jobs/SetupPanel';
import { ValveDesk } from '@/places/jobs/ValveDesk';

function Valves({ job, stage }: { job: JobFile; stage: ValveStage }) {
  return (
    <ValveDesk
      job={job.id}
      tag={job.tag}
      stage={stage}
      arrangement={job.instrument.hookUp}
      moves={job.moves.map(({ valve, to }) => ({ valve, to }))}
    />
  );
}

export function IsolateStage({ job }: { job: JobFile }) {
  const { instrument } = job;
  return (
    <Stack sx={{ gap: 1.5 }}>
      {/* Before the valves, also on a phone. */}
      <Caution>
        {HOOK_UPS[instrument.hookUp].caution} {SITE_RULES_FIRST}
      </Caution>
      <Columns columns="1.2fr 1fr">
        <Valves job={job} stage="isolate" />
        <Sheet title="Then">
          <AskedForm
            job={job.id}
            stage="isolate"
            questions={questionsAt('isolate', instrument)}
            word="Isolated, connect"
            takesFocus={false}
          />
        </Sheet>
      </Columns>
    </Stack>
  );
}

export function ReturnStage({ job }: { job: JobFile }) {
  return job.reason === 'hot check' ? <HotCheck job={job} /> : <Restore job={job} />;
}

function Asked({ job }: { job: JobFile }) {
  const { isLegLost } = valvesOfJob(job.instrument.hookUp, job.moves);
  return (
    <Sheet title="Back in service">
      <AskedForm
        job={job.id}
        stage="return"
        questions={questionsAt('return', job.instrument, circumstancesOf({ ...job, isLegLost }))}
        word="Back in service, sign"
        takesFocus={false}
      />
    </Sheet>
  );
}

/** The instrument measures all the while: nothing is opened, and what is found is a bias. */
async function HotCheck({ job }: { job: JobFile }) {
  const [vessel] = await vesselsOf(database(), job.instrumentId);
  const fields = vessel?.tool === 'drum' ? vessel.fields : {};
  const address = new URLSearchParams({ ...fields, tag: job.instrument.tag, job: String(job.id) });
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Caution>
        Steam and hot water scald; nobody in line with the glass or a vent. Boiler rules and licensed people
        decide. {SITE_RULES_FIRST}
      </Caution>
      <Columns columns="1.2fr 1fr">
        <Sheet
          title="Glass against transmitter"
          aside={<LinkButton href={`/workshop/drum?${address}`}>Work it out</LinkButton>}
        >
          <BiasTable biases={job.biases} />
        </Sheet>
        <Asked job={job} />
      </Columns>
    </Stack>
  );
}

function Restore({ job }: { job: JobFile }) {
  const final = asLeftRun(job) ?? asFoundRun(job);
  const isReturning = job.moves.some(({ stage }) => stage === 'return');
  const canAdjust = !isReturning && !final?.madeWith.procedure?.isAsFoundOnly;
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Caution>
        Vent and disconnect before the first valve. Controller and trips go back by an authorised person.{' '}
        {SITE_RULES_FIRST}
      </Caution>
      <Columns columns="1.2fr 1fr">
        <Valves job={job} stage="return" />
        <Stack sx={{ gap: 1.5 }}>
          {final !== null && canAdjust && (
            <Sheet title={final.kind === 'as-left' ? 'As left' : 'Left as found'}>
              <RunSummary run={final} />
              <AdjustAgain
                job={job.id}
                isAdvised={evaluateStoredRun(final).verdict !== 'within'}
                isAnythingAdjusted={job.adjustments.length > 0}
              />
            </Sheet>
          )}
          <OutcomeSheet job={job} />
          <SetupPanel job={job} moment="as it must be" />
          <Asked job={job} />
        </Stack>
      </Columns>
    </Stack>
  );
}
