import type { JobFile } from '@barys/store/jobs';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { STAGE_WORD } from '../words';
import { LinkButton } from '@/ui/LinkButton';

/** What can be taken along: the certificate and the label once signed, and the figures. */
export function Papers({ job }: { job: JobFile }) {
  return (
    <Stack direction="row" sx={{ gap: 1, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
      {job.signedAt !== null && job.runs.length === 0 ? (
        <Typography sx={{ fontWeight: 700 }}>Signed. Without a run there is no certificate.</Typography>
      ) : job.signedAt !== null ? (
        <>
          <Button variant="contained" component="a" href={`/jobs/${job.id}/certificate`} download>
            Download certificate (PDF)
          </Button>
          <LinkButton href={`/jobs/${job.id}/label`} isFile>
            Label (PDF)
          </LinkButton>
        </>
      ) : (
        <>
          <Typography sx={{ fontWeight: 700 }}>
            {job.cancelledAt === null
              ? 'Not signed yet: this is the record so far.'
              : 'Cancelled: nothing was signed.'}
          </Typography>
          {job.cancelledAt === null && (
            <LinkButton href={`/jobs/${job.id}`} isMain>
              Back to {STAGE_WORD[job.stage]}
            </LinkButton>
          )}
        </>
      )}
      <LinkButton href={`/jobs/${job.id}/readings.csv`} isFile>
        Readings (CSV)
      </LinkButton>
      <LinkButton href={`/api/v1/jobs/${job.id}`} isFile>
        Job (JSON)
      </LinkButton>
      <LinkButton href={`/instruments/${job.tag}`}>Instrument {job.tag}</LinkButton>
    </Stack>
  );
}
