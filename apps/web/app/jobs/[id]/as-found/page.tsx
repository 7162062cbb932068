import { StagePlace, stageTitle, type StageParams } from '@/places/jobs/StagePlace';
import { RunStage } from '@/places/jobs/stages/RunStage';

export async function generateMetadata({ params }: { params: StageParams }) {
  return stageTitle((await params).id, 'as-found');
}

export default async function RunPage({ params }: { params: StageParams }) {
  const { id } = await params;
  return <StagePlace id={id} stage="as-found" view={(job) => <RunStage job={job} kind="as-found" />} />;
}
