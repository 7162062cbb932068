import Box from '@mui/material/Box';
import { STAGES, type JobFile, type Stage } from '@barys/store/jobs';
import { redirect } from 'next/navigation';
import type { ReactNode } from 'react';
import { LinkButton } from '@/ui/LinkButton';
import { Attachments } from './Attachments';
import { JobHead } from './JobHead';
import { JobLists } from './lists/JobLists';
import { loadJobOr404 } from './load';
import { Turns } from './Turns';
import { STAGE_WORD } from './words';

export type StageParams = Promise<{ id: string }>;

export const isStage = (text: string): text is Stage => (STAGES as readonly string[]).includes(text);

export const stageTitle = (id: string, stage: string): { title: string } => ({
  title: `${isStage(stage) ? STAGE_WORD[stage] : 'Job'}, job ${id}`,
});

/** A stage of a job where the job stands at it; who comes to another one is led there. */
export async function StagePlace({
  id,
  stage,
  view,
}: {
  id: string;
  stage: Stage;
  view: (job: JobFile) => ReactNode;
}) {
  const job = await loadJobOr404(id);
  const isHere = job.stage === stage;
  // The brief can be read at any time. Other stages behind are shown on the record; a job is worked on where it stands.
  if (!isHere && (stage !== 'brief' || !isStage(job.stage))) redirect(`/jobs/${id}`);
  return (
    <>
      <JobHead job={job} />
      {!isHere && (
        <Box sx={{ mb: 1.5 }}>
          <LinkButton href={`/jobs/${id}`} isMain>
            Back to {STAGE_WORD[job.stage]}
          </LinkButton>
        </Box>
      )}
      {view(job)}
      {isHere && (
        <>
          <JobLists job={job.id} lines={job.lines} />
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
