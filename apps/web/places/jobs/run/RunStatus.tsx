import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { useReadings } from './useReadings';

/** How far the readings have come, and what is wrong with one of them. */
export function RunStatus({
  readings,
  pasteProblem,
  onHelp,
}: {
  readings: Pick<ReturnType<typeof useReadings>, 'waitingCount' | 'savedClock' | 'problem'>;
  pasteProblem: string | null;
  onHelp: () => void;
}) {
  const { waitingCount, savedClock, problem } = readings;
  return (
    <Stack
      direction="row"
      sx={{ justifyContent: 'space-between', alignItems: 'center', minHeight: 30, gap: 2 }}
    >
      <Typography role="alert" variant="body2" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
        {pasteProblem ?? problem ?? ''}
      </Typography>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center', flexShrink: 0 }}>
        <Typography role="status" variant="body2" sx={{ color: 'text.secondary' }}>
          {waitingCount > 0
            ? `${waitingCount} not saved yet, kept in this browser, trying again`
            : savedClock === null
              ? ''
              : `saved ${savedClock}`}
        </Typography>
        <Button size="small" onClick={onHelp} sx={{ minHeight: 30, py: 0 }}>
          Keys: ?
        </Button>
      </Stack>
    </Stack>
  );
}
