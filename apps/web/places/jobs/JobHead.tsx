import { STAGES, type JobFile, type Stage } from '@barys/store/jobs';
import { toleranceOf } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { toleranceInWords } from '@/ui/range/toleranceInWords';
import { STAGE_WORD } from './words';

/** Which instrument, which job, and the line of stages with the one that is now. */
export function JobHead({ job }: { job: JobFile }) {
  const { instrument } = job;
  const at =
    (STAGES as readonly string[]).indexOf(job.stage) + (job.signedAt === null ? 0 : STAGES.length + 1);
  const isUntouched = job.runs.every((run) => run.kind === 'as-found');
  const skipped = new Set(job.passed.filter(({ isSkip }) => isSkip).map(({ stage }) => stage));
  const isPassedOver = (stage: Stage) =>
    skipped.has(stage) ||
    (job.reason === 'hot check' &&
      STAGES.indexOf(stage) > STAGES.indexOf('authorise') &&
      STAGES.indexOf(stage) < STAGES.indexOf('return')) ||
    (at > STAGES.indexOf('as-left') && isUntouched && (stage === 'adjust' || stage === 'as-left'));
  return (
    <Box component="header" sx={{ mb: 1.5 }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', columnGap: 1.5, flexWrap: 'wrap', mb: 0.75 }}>
        <Typography variant="h1" component="h1">
          <Link prefetch={false} href={`/instruments/${instrument.tag}`} style={{ textDecoration: 'none' }}>
            {instrument.tag}
          </Link>
        </Typography>
        <Typography sx={{ fontWeight: 600 }}>{instrument.service}</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {rangeInWords(instrument.configuration)} · {toleranceInWords(toleranceOf(instrument))}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary', ml: 'auto' }}>
          {job.signedAt !== null ? (
            `Job ${job.id}`
          ) : (
            <Link prefetch={false} href={`/jobs/${job.id}/record`}>
              Job {job.id}, record so far
            </Link>
          )}
        </Typography>
      </Stack>
      <Box component="ol" aria-label="Stages" sx={{ display: 'flex', listStyle: 'none', m: 0, p: 0 }}>
        {STAGES.map((stage, index) => (
          <Box
            component="li"
            key={stage}
            aria-current={index === at ? 'step' : undefined}
            sx={{
              flex: 1,
              minWidth: 0,
              pt: 0.5,
              fontSize: 14,
              borderTop: '4px solid',
              borderColor: index < at ? 'var(--ink)' : index === at ? 'var(--now)' : 'var(--rule)',
              color: index > at || isPassedOver(stage) ? 'text.secondary' : 'text.primary',
              fontWeight: index === at ? 700 : 400,
              // On a phone only the stage that is now has its word; the line shows where it lies.
              '& span': {
                display: { xs: index === at ? 'inline' : 'none', sm: 'inline' },
                whiteSpace: 'nowrap',
              },
            }}
          >
            <span>
              {stage === 'brief' && index < at && job.signedAt === null ? (
                <Link prefetch={false} href={`/jobs/${job.id}/brief`}>
                  {STAGE_WORD[stage]}
                </Link>
              ) : (
                STAGE_WORD[stage]
              )}
              {isPassedOver(stage) && (
                <Box component="small" sx={{ display: 'block', fontSize: 12 }}>
                  {skipped.has(stage) ? ' (skipped)' : ' (not needed)'}
                </Box>
              )}
            </span>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
