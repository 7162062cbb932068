import { STAGES, type JobFile, type Stage } from '@barys/store/jobs';
import { notFound, redirect } from 'next/navigation';
import type { ReactNode } from 'react';
import { Attachments } from '@/places/jobs/Attachments';
import { JobHead } from '@/places/jobs/JobHead';
import { AdjustStage } from '@/places/jobs/stages/AdjustStage';
import { AuthoriseStage } from '@/places/jobs/stages/AuthoriseStage';
import { BriefStage } from '@/places/jobs/stages/BriefStage';
import { ConnectStage } from '@/places/jobs/stages/ConnectStage';
import { JudgeStage } from '@/places/jobs/stages/JudgeStage';
import { RunStage } from '@/places/jobs/stages/RunStage';
import { SignStage } from '@/places/jobs/stages/SignStage';
import { IsolateStage, ReturnStage } from '@/places/jobs/stages/ValveStages';
import { Turns } from '@/places/jobs/Turns';
import { STAGE_WORD } from '@/places/jobs/words';
import { LinkButton } from '@/ui/LinkButton';
import { loadJobOr404 } from '@/places/jobs/load';

type Params = Promise<{ id: string; stage: string }>;

export async function generateMetadata({ params }: { params: Params }) {
  const { id, stage } = await params;
  return { title: `${isStage(stage) ? STAGE_WORD[stage] : 'Job'}, job ${id}` };
}

const isStage = (text: string): text is Stage => (STAGES as readonly string[]).includes(text);

function stageView(stage: Stage, job: JobFile): ReactNode {
  switch (stage) {
    case 'brief':
      return <BriefStage job={job} />;
    case 'authorise':
      return <AuthoriseStage job={job} />;
    case 'isolate':
      return <IsolateStage job={job} />;
    case 'connect':
      return <ConnectStage job={job} />;
    case 'as-found':
    case 'as-left':
      return <RunStage job={job} kind={stage} />;
    case 'judge':
      return <JudgeStage job={job} />;
    case 'adjust':
      return <AdjustStage job={job} />;
    case 'return':
      return <ReturnStage job={job} />;
    case 'sign':
      return <SignStage job={job} />;
  }
}

export default async function StagePage({ params }: { params: Params }) {
  const { id, stage } = await params;
  if (!isStage(stage)) notFound();
  const job = await loadJobOr404(id);
  const isHere = job.stage === stage;
  // The brief can be read at any time. Other stages behind are shown on the record; a job is worked on where it stands.
  if (!isHere && (stage !== 'brief' || !isStage(job.stage))) redirect(`/jobs/${id}`);
  return (
    <>
      <JobHead job={job} />
      {!isHere && (
        <LinkButton href={`/jobs/${id}`} isMain>
          Back to {STAGE_WORD[job.stage]}
        </LinkButton>
      )}
      {stageView(stage, job)}
      {isHere && (
        <>
          <Attachments job={job} />
          <Turns
            job={job.id}
            canConnect={stage === 'as-found' || stage === 'judge' || stage === 'adjust'}
            isMoved={job.moves.length > 0}
          />
        </>
      )}
    </>
  );
}
