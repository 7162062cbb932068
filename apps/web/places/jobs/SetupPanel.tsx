import type { JobFile } from '@barys/store/jobs';
import type { SetupMoment } from '@barys/store/registers';
import Typography from '@mui/material/Typography';
import { SetupReadings } from '@/places/instruments/set-up/SetupReadings';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';

const WORDS: Record<SetupMoment, { title: string; empty: string }> = {
  'as set': {
    title: 'Set-up, as set',
    empty: 'Read what is set before anything is changed: unit, range, damping, transfer function, display.',
  },
  'as it must be': {
    title: 'Set-up, as it must be',
    empty: 'Read once more what is set before it goes back into service.',
  },
};

/** What was read of the set-up at one moment of a job, and the way to read it. */
export function SetupPanel({ job, moment }: { job: JobFile; moment: SetupMoment }) {
  const { title, empty } = WORDS[moment];
  const last = job.setups.filter((one) => one.moment === moment).at(-1);
  return (
    <Sheet
      title={title}
      aside={
        <LinkButton
          href={`/instruments/${encodeURIComponent(job.instrument.tag)}/set-up?${new URLSearchParams({ job: String(job.id), moment })}`}
        >
          {last === undefined ? 'Read it' : 'Read it again'}
        </LinkButton>
      }
    >
      {last === undefined ? (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {empty}
        </Typography>
      ) : (
        <SetupReadings readings={[last]} />
      )}
    </Sheet>
  );
}
