import { sealOfJob } from '@barys/store/db';
import { amendmentsOfJob, asFoundRun, asLeftRun } from '@barys/store/jobs';
import { doubtsOfJob } from '@barys/store/registers';
import Alert from '@mui/material/Alert';
import { AdviceRecord } from '@/places/jobs/advice/OutcomeSheet';
import { LoopRecord } from '@/places/jobs/loop/LoopRecord';
import { CauseRecord } from '@/places/jobs/suspects/CauseRecord';
import { AdjustmentTable } from '@/places/jobs/AdjustmentTable';
import { AmendmentList } from '@/places/jobs/AmendmentList';
import { Besides } from '@/places/jobs/Besides';
import { JobHead } from '@/places/jobs/JobHead';
import { Attachments } from '@/places/jobs/Attachments';
import { StageHistory } from '@/places/jobs/StageHistory';
import { doubtsInWords } from '@/places/jobs/words';
import { ValveMoves } from '@/places/jobs/ValveMoves';
import { database } from '@/server/database';
import { Columns } from '@/ui/Columns';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { Sheet } from '@/ui/Sheet';
import { loadJobOr404 } from '@/places/jobs/load';
import { RunRecord } from '@/places/jobs/record/RunRecord';
import { Review } from '@/places/jobs/record/Review';
import { Visit } from '@/places/jobs/record/Visit';
import { Amend } from '@/places/jobs/record/Amend';
import { Papers } from '@/places/jobs/record/Papers';

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
