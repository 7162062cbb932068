import { StoreError } from '@barys/store/db';
import { asFoundRun, asLeftRun, reasonToLeave, type JobFile } from '@barys/store/jobs';
import { hasPassword } from '@barys/store/people';
import { verdictOfCheck, type Run } from '@barys/store/runs';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { database } from '@/server/database';
import { actingPerson } from '@/server/person';
import { Columns } from '@/ui/Columns';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { Sheet } from '@/ui/Sheet';
import { BiasTable } from '@/places/jobs/BiasTable';
import { LoopRecord } from '@/places/jobs/loop/LoopRecord';
import { CauseRecord } from '@/places/jobs/suspects/CauseRecord';
import { OutcomeSheet } from '@/places/jobs/advice/OutcomeSheet';
import { AdjustmentTable } from '@/places/jobs/AdjustmentTable';
import { daysInWords } from '@/places/jobs/words';
import { RunSummary } from '@/places/jobs/RunSummary';
import { SignForm } from '@/places/jobs/SignForm';

export async function SignStage({ job }: { job: JobFile }) {
  const asFound = asFoundRun(job);
  if (asFound === null && job.reason !== 'hot check')
    throw new StoreError({ code: 'no-such', what: 'as-found run of job', name: job.id });
  const asLeft = asLeftRun(job);
  const person = await actingPerson();
  const final = asLeft ?? asFound;
  const finalVerdict = final === null ? null : verdictOfCheck(final);
  return (
    <Columns columns="1fr 1fr">
      {asFound === null ? <WithoutRun job={job} /> : <Runs job={job} asFound={asFound} asLeft={asLeft} />}
      <Stack sx={{ gap: 1.5 }}>
        {asFound !== null && <CorridorSheet asFound={asFound} asLeft={asLeft} height={230} />}
        <Sheet title="Sign">
          <SignForm
            job={job.id}
            name={person?.name ?? null}
            readers={[...new Set(job.runs.flatMap(({ readings }) => readings.map(({ readBy }) => readBy)))]}
            days={daysInWords(job.runs)}
            isReasonWanted={
              (finalVerdict === 'outside' || finalVerdict === 'not-judged') &&
              !(await reasonToLeave(database(), job.id))
            }
            hasPassword={person !== null && (await hasPassword(database(), person.id))}
            sentBack={job.passed.at(-1)?.stage === 'review' ? (job.passed.at(-1)?.note ?? null) : null}
          />
        </Sheet>
      </Stack>
    </Columns>
  );
}

function Runs({ job, asFound, asLeft }: { job: JobFile; asFound: Run; asLeft: Run | null }) {
  return (
    <Columns columns="repeat(2, minmax(0, 1fr))" from="sm">
      <Sheet title="As found">
        <RunSummary run={asFound} />
      </Sheet>
      <Sheet title={asLeft === null ? 'As left' : `As left${asLeft.pass > 1 ? `, pass ${asLeft.pass}` : ''}`}>
        {asLeft === null ? (
          <Typography>Left as found: nothing was adjusted.</Typography>
        ) : (
          <RunSummary run={asLeft} />
        )}
      </Sheet>
      {job.adjustments.length > 0 && (
        <Sheet title="Adjustments" sx={{ gridColumn: '1 / -1' }}>
          <AdjustmentTable adjustments={job.adjustments} />
        </Sheet>
      )}
      <LoopRecord asFound={asFound} asLeft={asLeft} />
      <CauseRecord job={job} />
      <OutcomeSheet job={job} />
    </Columns>
  );
}

/** A hot check has no run: what was entered stands here, its list below. */
function WithoutRun({ job }: { job: JobFile }) {
  return (
    <Sheet title="Biases entered">
      <BiasTable biases={job.biases} />
    </Sheet>
  );
}
