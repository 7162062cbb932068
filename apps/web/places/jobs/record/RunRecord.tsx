import { amendedRun, type Amendment } from '@barys/store/jobs';
import type { Run } from '@barys/store/runs';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { RunSummary } from '../RunSummary';
import { BesideTable } from '../BesideTable';
import { RunTable } from '../RunTable';
import { linkWords, rawWords } from '../sources';
import { showMoment } from '@/server/dates';
import { Sheet } from '@/ui/Sheet';

/** How far the two clocks may be apart before the record says so. */
const MOST_LAG_MS = 2 * 60 * 1000;

/** A reading that reached the server long after it was taken, or by a clock that was wrong. */
const isTakenEarlier = ({ takenAt, readAt }: Run['readings'][number]): boolean =>
  takenAt !== null && Math.abs(readAt.valueOf() - takenAt.valueOf()) > MOST_LAG_MS;

/** A run as it was read: what it came to, its readings, and what stood beside them. */
export function RunRecord({ run, amendments }: { run: Run; amendments: readonly Amendment[] }) {
  const name = `${run.kind === 'as-found' ? 'As found' : 'As left'}${run.pass > 1 ? `, pass ${run.pass}` : ''}${run.thrownAway === null ? '' : ' (thrown away)'}`;
  const amended = amendedRun(run, amendments);
  return (
    <Sheet title={name} aside={`${run.startedBy}, ${showMoment(run.startedAt)}`}>
      {run.thrownAway !== null && (
        <Typography sx={{ fontWeight: 700, mb: 1 }}>
          Does not count: {run.thrownAway.reason} ({run.thrownAway.by},{' '}
          {showMoment(new Date(run.thrownAway.at))})
        </Typography>
      )}
      <RunSummary run={run} />
      {amended !== null && (
        <Box sx={{ mt: 1.5 }}>
          <Typography sx={{ fontWeight: 700 }}>With the readings as amended</Typography>
          <RunSummary run={amended} />
        </Box>
      )}
      <Box sx={{ mt: 1.5 }}>
        <RunTable run={run} />
        <BesideTable run={run} />
      </Box>
      <Sources run={run} />
      {run.readings.some(isTakenEarlier) && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          Taken before they were typed in:{' '}
          {run.readings
            .filter(isTakenEarlier)
            .map(({ position, takenAt, readAt }) =>
              takenAt === null
                ? ''
                : `point ${position} at ${showMoment(takenAt)}, typed ${showMoment(readAt)}`,
            )
            .join('; ')}
        </Typography>
      )}
      {run.marks.length > 0 && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          Beside the readings:{' '}
          {run.marks
            .map(
              ({ position, kind, remark, appliedText, outputText, markedBy }) =>
                `point ${position} ${kind}${[remark, appliedText, outputText].filter(Boolean).length === 0 ? '' : `: ${[remark, appliedText, outputText].filter(Boolean).join(', ')}`} (${markedBy})`,
            )
            .join('; ')}
        </Typography>
      )}
      {run.superseded.length > 0 && (
        <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
          Corrected since and kept:{' '}
          {run.superseded
            .map(
              ({ position, outputText, readBy, readAt }) =>
                `point ${position} read ${outputText} (${readBy}, ${showMoment(readAt)})`,
            )
            .join('; ')}
        </Typography>
      )}
    </Sheet>
  );
}

/** Which readings nobody typed, and what came over the wire for them. */
function Sources({ run }: { run: Run }) {
  const lines = linkWords(run);
  if (lines.length === 0) return null;
  const raw = run.readings.filter(({ source }) => source !== null);
  return (
    <Box sx={{ mt: 1 }}>
      {lines.map((line) => (
        <Typography key={line} variant="body2">
          {line}
        </Typography>
      ))}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        As it came: {raw.map((one) => `point ${one.position}: ${rawWords(one)}`).join('; ')}
      </Typography>
    </Box>
  );
}
