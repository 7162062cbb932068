import { attachmentsOfJob, type Attachment, type JobFile } from '@barys/store/jobs';
import type { Run } from '@barys/store/runs';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { database } from '@/server/database';
import { showMoment } from '@/server/dates';
import { pointWords } from '@/ui/figures';
import { Sheet } from '@/ui/Sheet';
import { AttachForm } from './AttachForm';
import { STAGE_WORD } from './words';

/** The point of a run that something is kept at, by name; empty of what is kept at the stage. */
function pointOf({ runs }: JobFile, { runId, position }: Attachment): string {
  const run = runs.find(({ id }) => id === runId);
  const point = run?.madeWith.points.find((one) => one.position === position);
  return run === undefined || point === undefined ? '' : ` at ${pointWords(point)}, pass ${run.pass}`;
}

/** The run in hand, whose points something may be kept at. */
const runInHand = ({ runs, stage }: JobFile): Run | null =>
  runs.filter(({ kind, thrownAway }) => kind === stage && thrownAway === null).at(-1) ?? null;

/** Notes and photographs of a job, and at an open one the place to add one. */
export async function Attachments({ job }: { job: JobFile }) {
  const all = await attachmentsOfJob(database(), job.id);
  const isOpen = job.stage !== 'closed' && job.stage !== 'cancelled';
  const run = runInHand(job);
  if (!isOpen && all.length === 0) return null;
  return (
    <Sheet title="Notes and photographs" sx={{ mt: 1.5, gridColumn: '1 / -1' }}>
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', mb: all.length === 0 ? 0 : 1.5 }}>
        {all.map((one) => {
          const { id, stage, remark, fileName, mediaType, addedBy, addedAt } = one;
          return (
            <Box key={id} sx={{ maxWidth: 260 }}>
              {mediaType.startsWith('image/') && (
                <a href={`/jobs/${job.id}/attachments/${id}`}>
                  {/* oxlint-disable-next-line nextjs/no-img-element -- a picture of the database, not of the site */}
                  <img
                    src={`/jobs/${job.id}/attachments/${id}`}
                    alt={remark === '' ? fileName : remark}
                    style={{ maxWidth: 260, maxHeight: 160, display: 'block' }}
                  />
                </a>
              )}
              {mediaType === 'application/pdf' && (
                <a href={`/jobs/${job.id}/attachments/${id}`}>{fileName}</a>
              )}
              <Typography>{remark}</Typography>
              <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                {STAGE_WORD[stage]}
                {pointOf(job, one)}, {addedBy}, {showMoment(addedAt)}
                {job.signedAt !== null && addedAt > job.signedAt && (
                  <strong> · added after the signature</strong>
                )}
              </Typography>
            </Box>
          );
        })}
      </Box>
      {isOpen && (
        <AttachForm
          key={all.length}
          job={job.id}
          run={run?.id ?? null}
          points={(run?.madeWith.points ?? []).map((point) => ({
            position: point.position,
            words: pointWords(point),
          }))}
        />
      )}
    </Sheet>
  );
}
