import type { JobFile } from '@barys/store/jobs';
import type { SetupMoment } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { SetupReadings } from '@/places/instruments/set-up/SetupReadings';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';

const WORDS: Record<SetupMoment, { title: string; empty: string }> = {
  'as set': {
    title: 'Set-up, as set',
    empty: 'What is set, read before anything is changed.',
  },
  'as it must be': {
    title: 'Set-up, as it must be',
    empty: 'What is set, read once more before it goes back.',
  },
};

/** What was read of the set-up at one moment of a job, and the way to read it; one line where nothing was. */
export function SetupPanel({ job, moment }: { job: JobFile; moment: SetupMoment }) {
  const { title, empty } = WORDS[moment];
  const last = job.setups.filter((one) => one.moment === moment).at(-1);
  const link = (
    <LinkButton
      href={`/instruments/${encodeURIComponent(job.instrument.tag)}/set-up?${new URLSearchParams({ job: String(job.id), moment })}`}
    >
      {last === undefined ? 'Read it' : 'Read it again'}
    </LinkButton>
  );
  if (last !== undefined)
    return (
      <Sheet title={title} aside={link}>
        <SetupReadings readings={[last]} />
      </Sheet>
    );
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 1.5 }}
    >
      <Typography sx={{ fontWeight: 600 }}>{title}</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {empty}
      </Typography>
      {link}
    </Box>
  );
}
