import type { Anomaly } from '@barys/core/drift';
import type { IntervalChange, NamedDifference } from '@barys/store/intervals';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Sheet } from '@/ui/Sheet';
import { anomalyWords, differenceWords, months } from './words';

/** Steps of drift below which nothing is said to be unusual. */
const LEAST = 5;

/** What in the history is worth a look, with its evidence. */
export function WorthALook({
  anomalies,
  differences,
  calibrations,
}: {
  anomalies: readonly Anomaly[];
  differences: readonly NamedDifference[];
  calibrations: number;
}) {
  const lines = [...anomalies.map(anomalyWords), ...differences.map(differenceWords)];
  return (
    <Sheet title="Worth a look">
      {lines.length === 0 ? (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {calibrations < LEAST
            ? `From ${LEAST} calibrations on, steps, growing hysteresis and changes with a reference are told from chance.`
            : 'No step, no growing hysteresis, no change with a reference that is more than chance.'}
        </Typography>
      ) : (
        <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
          {lines.map((line) => (
            <Typography key={line} component="li" variant="body2" sx={{ mb: 0.5 }}>
              {line}
            </Typography>
          ))}
        </Box>
      )}
    </Sheet>
  );
}

/** Who changed the interval, when and why; nothing where nobody did. */
export function ChangesSheet({ changes }: { changes: readonly IntervalChange[] }) {
  if (changes.length === 0) return null;
  return (
    <Sheet title="Changes of the interval">
      <DataTable
        label="Changes of the interval"
        rows={changes}
        keyOf={({ at }) => at.toISOString()}
        columns={[
          ['When', ({ at }) => showDate(at)],
          ['From', ({ beforeMonths }) => months(beforeMonths)],
          ['To', ({ afterMonths }) => months(afterMonths)],
          ['Who', ({ by }) => by],
          ['Why', ({ reason }) => reason],
        ]}
      />
    </Sheet>
  );
}
