import { LEAST_OF_FAMILY, reliabilityAt, reliabilityBounds, type AtInterval } from '@barys/core/interval';
import type { NamedFamily } from '@barys/store/intervals';
import Typography from '@mui/material/Typography';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { months, partWords } from './words';

/** The part found inside after one interval, with the exact bounds of 95 %. */
function boundsWords({ calibrations, out }: AtInterval): string {
  const { twoSided } = reliabilityBounds({ calibrations, out });
  return `${partWords(twoSided.low)} … ${partWords(twoSided.high)}`;
}

/** How its family was found, by the time since the calibration before, beside the model. */
export function FamilySheet({ family: { name, family } }: { family: NamedFamily }) {
  const { rows, figures } = family;
  const rate = figures?.rate ?? null;
  return (
    <Sheet title={`Its family: ${name}`} aside="as found, without calls on a fault">
      <DataTable
        label="Reliability of the family"
        rows={rows}
        keyOf={({ interval }) => interval}
        none="No calibration of it has one before it yet."
        columns={[
          ['After', ({ interval }) => months(interval)],
          ['Calibrations', ({ calibrations }) => calibrations, 'right'],
          ['Found outside', ({ out }) => out, 'right'],
          [
            'Found inside',
            ({ calibrations, out }) => <Figure>{partWords((calibrations - out) / calibrations)}</Figure>,
            'right',
          ],
          ['95 % bounds', (row) => <Figure>{boundsWords(row)}</Figure>, 'right'],
          [
            'Model',
            ({ interval }) => (
              <Figure>
                {rate === null || !Number.isFinite(rate) ? '—' : partWords(reliabilityAt(rate, interval))}
              </Figure>
            ),
            'right',
          ],
        ]}
      />
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        {figures === null
          ? `From ${LEAST_OF_FAMILY} calibrations on a model is fitted; until then the family advises nothing.`
          : 'Bounds after Clopper and Pearson; model: exponential, the likeliest rate over all rows.'}
      </Typography>
    </Sheet>
  );
}
