import type { JobFile, Stage } from '@barys/store/jobs';
import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { isStage, StagePlace, stageTitle } from '@/places/jobs/StagePlace';
import { AdjustStage } from '@/places/jobs/stages/AdjustStage';
import { AuthoriseStage } from '@/places/jobs/stages/AuthoriseStage';
import { BriefStage } from '@/places/jobs/stages/BriefStage';
import { ConnectStage } from '@/places/jobs/stages/ConnectStage';
import { JudgeStage } from '@/places/jobs/stages/JudgeStage';
import { SignStage } from '@/places/jobs/stages/SignStage';
import { IsolateStage, ReturnStage } from '@/places/jobs/stages/ValveStages';

type Params = Promise<{ id: string; stage: string }>;
type Search = Promise<Readonly<Record<string, string | string[] | undefined>>>;

export async function generateMetadata({ params }: { params: Params }) {
  const { id, stage } = await params;
  return stageTitle(id, stage);
}

/** The runs have pages of their own, so that a browser loads for them what they take and no more. */
const VIEWS: Record<
  Exclude<Stage, 'as-found' | 'as-left'>,
  (job: JobFile, search: Awaited<Search>) => ReactNode
> = {
  brief: (job) => <BriefStage job={job} />,
  authorise: (job) => <AuthoriseStage job={job} />,
  isolate: (job) => <IsolateStage job={job} />,
  connect: (job) => <ConnectStage job={job} />,
  judge: (job, { vented }) => <JudgeStage job={job} vented={vented === undefined ? null : String(vented)} />,
  adjust: (job) => <AdjustStage job={job} />,
  return: (job) => <ReturnStage job={job} />,
  sign: (job) => <SignStage job={job} />,
};

export default async function StagePage({ params, searchParams }: { params: Params; searchParams: Search }) {
  const [{ id, stage }, search] = await Promise.all([params, searchParams]);
  if (!isStage(stage) || stage === 'as-found' || stage === 'as-left') notFound();
  return <StagePlace id={id} stage={stage} view={(job) => VIEWS[stage](job, search)} />;
}
