import type { HandedOver } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { showMoment } from '@/server/dates';
import { Sheet } from '@/ui/Sheet';
import { byDanger, STANDING_WORD, standingWords } from './words';

/** One instrument, with all that stands otherwise than in service. */
function Standing({ job }: { job: HandedOver }) {
  return (
    <Box
      component="li"
      aria-label={job.tag}
      sx={{ borderTop: '1px solid var(--rule)', py: 1, breakInside: 'avoid' }}
    >
      <Typography>
        <Link prefetch={false} href={`/jobs/${job.id}`}>
          <strong>{job.tag}</strong>
        </Link>{' '}
        {job.service}, {job.area}
        {!job.isOpen && ', from a job that was signed without its return'}
      </Typography>
      {[...job.standing].sort(byDanger).map((standing) => (
        <Box
          key={standing.kind}
          sx={{
            display: 'grid',
            columnGap: 2,
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: '190px minmax(0, 1fr) 310px' },
            py: 0.25,
          }}
        >
          <Typography variant="body2" sx={{ fontWeight: 700 }}>
            {STANDING_WORD[standing.kind]}
          </Typography>
          <Typography variant="body2">{standingWords(job.hookUp, standing)}</Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            since {showMoment(standing.at)}, {standing.by}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

/** What stands otherwise than in service right now, what can hurt first. */
export function RightNow({ jobs }: { jobs: readonly HandedOver[] }) {
  const standing = jobs
    .flatMap((job) => {
      const [worst] = [...job.standing].sort(byDanger);
      return worst === undefined ? [] : [{ job, worst }];
    })
    .sort((a, b) => byDanger(a.worst, b.worst));
  return (
    <Sheet title="Right now" aside="as it was kept; look before you touch">
      {standing.length === 0 ? (
        <Typography sx={{ color: 'text.secondary' }}>
          Nothing is isolated, bypassed, in manual or connected for a job, as far as it was kept.
        </Typography>
      ) : (
        <Box component="ul" aria-label="Right now" sx={{ m: 0, p: 0, listStyle: 'none' }}>
          {standing.map(({ job }) => (
            <Standing key={job.id} job={job} />
          ))}
        </Box>
      )}
    </Sheet>
  );
}
