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
import { evaluateStoredRun } from '@barys/store/runs';
import Stack from '@mui/material/Stack';
import { Columns } from '@/ui/Columns';
import { Sheet } from '@/ui/Sheet';
import { AdjustAgain } from '@/places/jobs/AdjustAgain';
import { AskedForm } from '@/places/jobs/AskedForm';
import { Caution, SITE_RULES_FIRST } from '@/places/jobs/Caution';
import { RunSummary } from '@/places/jobs/RunSummary';
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
  const { instrument } = job;
  const state = valvesOfJob(instrument.hookUp, job.moves);
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
          {job.reason !== 'hot check' && <SetupPanel job={job} moment="as it must be" />}
          <Sheet title="Back in service">
            <AskedForm
              job={job.id}
              stage="return"
              questions={questionsAt(
                'return',
                instrument,
                circumstancesOf({ ...job, isLegLost: state.isLegLost }),
              )}
              word="Back in service, sign"
              takesFocus={false}
            />
          </Sheet>
        </Stack>
      </Columns>
    </Stack>
  );
}
