import { questionsAt, type JobFile } from '@barys/store/jobs';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Columns } from '@/ui/Columns';
import { Sheet } from '@/ui/Sheet';
import { AskedForm } from '@/places/jobs/AskedForm';
import { Caution, SITE_RULES_FIRST } from '@/places/jobs/Caution';

export function AuthoriseStage({ job }: { job: JobFile }) {
  const { instrument } = job;
  const { cautions } = instrument.procedure.content;
  return (
    <Columns columns="1.4fr 1fr">
      <Sheet title="Asked before anything is touched">
        <AskedForm
          job={job.id}
          stage="authorise"
          questions={questionsAt('authorise', instrument)}
          word="Authorised, isolate"
        />
      </Sheet>
      {/* On a phone the hazards come before the questions. */}
      <Stack sx={{ gap: 1.5, order: { xs: -1, md: 0 } }}>
        <Caution>Barys asks, records and reminds; it never grants permission. {SITE_RULES_FIRST}</Caution>
        <Sheet title="What is dangerous here">
          <Typography sx={{ fontWeight: 700 }}>
            {instrument.hazards.length === 0
              ? 'No hazard is entered for this instrument: look for yourself.'
              : instrument.hazards.join('; ')}
          </Typography>
          {instrument.criticality === 'safety function' && (
            <Typography sx={{ mt: 1 }}>
              This instrument is part of a safety function: only an authorised person bypasses it, and the
              site’s own procedure is followed.
            </Typography>
          )}
          {cautions.map((caution) => (
            <Typography key={caution} sx={{ mt: 1 }}>
              {caution}
            </Typography>
          ))}
        </Sheet>
      </Stack>
    </Columns>
  );
}
