import type { SetupReading } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { showMoment } from '@/server/dates';
import { CheckWords } from './CheckSheet';
import { DifferenceWords } from './DifferenceWords';

/** What was read before, each with its differences as they were found. */
export function SetupReadings({ readings }: { readings: readonly SetupReading[] }) {
  if (readings.length === 0)
    return <Typography sx={{ color: 'text.secondary' }}>Nothing was read yet.</Typography>;
  return (
    <Stack sx={{ gap: 1.5 }}>
      {readings.map((reading) => (
        <Box key={reading.id} sx={{ breakInside: 'avoid' }}>
          <Typography variant="body2" sx={{ fontWeight: 600 }}>
            {showMoment(reading.readAt)}, {reading.readBy}, against version {reading.version}
            {reading.jobId !== null && (
              <>
                {', '}
                <Link prefetch={false} href={`/jobs/${reading.jobId}`}>
                  job {reading.jobId}
                </Link>
                {`, ${reading.moment}`}
              </>
            )}
          </Typography>
          {reading.differences.length === 0 && (
            <Typography variant="body2">What was read is as it has to be.</Typography>
          )}
          <Stack component="ul" sx={{ m: 0, pl: 2.5, gap: 0.5 }}>
            {reading.differences.map((difference) => (
              <li key={difference.key}>
                <Typography variant="body2" sx={{ fontWeight: 600 }}>
                  {`${difference.name}: ${difference.read} instead of ${difference.wanted}`}
                </Typography>
                <DifferenceWords difference={difference} />
              </li>
            ))}
          </Stack>
          <CheckWords results={reading.checks} />
          {reading.remark !== '' && <Typography variant="body2">{reading.remark}</Typography>}
        </Box>
      ))}
    </Stack>
  );
}
