import { appliedAtPercent, expectedOutput } from '@barys/core/signal';
import { formatFixed, formatPlain } from '@barys/core/text';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { Instrument, Reference } from '@barys/store/registers';
import { ratiosAt, type Side } from '@barys/store/runs';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Box from '@mui/material/Box';
import { Figure } from '@/ui/Figure';
import { ratioInWords } from '@/ui/ratio';
import { Scroller } from '@/ui/Scroller';

const STEPS = [0, 12.5, 25, 37.5, 50, 62.5, 75, 87.5, 100];
/** Bars end here: beyond it a reference is better than anybody asks. */
const FULL_BAR = 12;

function Bar({ ratio }: { ratio: number | null }) {
  if (ratio === null) return <>—</>;
  const share = Math.min(ratio / FULL_BAR, 1) * 100;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
      <Figure sx={{ width: 88, textAlign: 'right' }}>{ratioInWords(ratio)}</Figure>
      <Box
        sx={{ flex: 1, minWidth: 90, height: 10, position: 'relative', bgcolor: 'var(--rule)' }}
        aria-hidden
      >
        <Box sx={{ width: `${share}%`, height: '100%', bgcolor: 'text.primary' }} />
        <Box
          sx={{
            position: 'absolute',
            left: `${(4 / FULL_BAR) * 100}%`,
            top: -3,
            bottom: -3,
            width: 2,
            bgcolor: 'var(--now)',
          }}
        />
      </Box>
    </Box>
  );
}

/** Accuracy and uncertainty ratio of a reference over the range of an instrument; the upright line stands at 4:1. */
export function CoverageTable({
  reference,
  instrument,
  side,
  today,
}: {
  reference: Reference;
  instrument: Instrument;
  side: Side;
  today: string;
}) {
  const range = instrument.configuration;
  const unit = side === 'input' ? PRESSURE_UNITS[range.inputUnit].label : range.outputUnit;
  return (
    <Scroller label="Ratios over the range">
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>Point</TableCell>
            <TableCell>Value</TableCell>
            <TableCell>Accuracy ratio</TableCell>
            <TableCell>Uncertainty ratio, k = 2</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {STEPS.map((percent) => {
            const applied = appliedAtPercent(range, percent);
            const value = side === 'input' ? applied : expectedOutput(range, applied);
            const { ratio, uncertaintyRatio } = ratiosAt(reference, instrument, side, applied, { today });
            return (
              <TableRow key={percent}>
                <TableCell>{formatFixed(percent, 1)} %</TableCell>
                <TableCell>
                  <Figure>
                    {formatPlain(Number(value.toPrecision(6)))} {unit}
                  </Figure>
                </TableCell>
                <TableCell>
                  <Bar ratio={ratio} />
                </TableCell>
                <TableCell>
                  <Bar ratio={uncertaintyRatio} />
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
    </Scroller>
  );
}
