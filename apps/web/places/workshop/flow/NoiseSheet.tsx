'use client';
import { formatFixed, formatSigned } from '@barys/core/text';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import type { NoiseRow } from './compute';
import type { FlowFields } from './fields';

const [WIDTH, HEIGHT] = [420, 190];

/** Some moments of the flow that is shown, behind the damping that was chosen and without any. */
function Trace({ rows }: { rows: readonly NoiseRow[] }) {
  const chosen = rows.find(({ isChosen }) => isChosen);
  const none = rows.find(({ dampingS }) => dampingS === 0);
  const lines = [none, chosen].flatMap((row) => (row === undefined ? [] : [row.damped]));
  const all = lines.flatMap(({ shown }) => shown);
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const room = Math.max(high - low, 0.5);
  // Both in the same time, though a quick one has finer steps.
  const seconds = Math.min(...lines.map(({ shown, stepS }) => shown.length * stepS));
  const y = (value: number) => 10 + ((high + room * 0.05 - value) / (room * 1.1)) * (HEIGHT - 34);
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label="The flow that is shown over some seconds, thin without damping and heavy with the one that is chosen. The figures are in the table."
      sx={{ width: '100%', maxHeight: 220, display: 'block' }}
    >
      {lines.map(({ shown, stepS }, place) => (
        <polyline
          key={place}
          points={shown
            .filter((_, i) => i * stepS <= seconds)
            .map(
              (value, i) =>
                `${(44 + ((i * stepS) / seconds) * (WIDTH - 54)).toFixed(1)},${y(value).toFixed(1)}`,
            )
            .join(' ')}
          fill="none"
          stroke={place === 1 ? 'var(--now)' : 'var(--muted)'}
          strokeWidth={place === 1 ? 2.5 : 1}
        />
      ))}
      {[low, high].map((value, place) => (
        <text key={place} x={38} y={y(value) + 4} textAnchor="end" fontSize={12} fill="var(--muted)">
          {formatFixed(value, 1)}
        </text>
      ))}
      <text x={WIDTH - 10} y={HEIGHT - 6} textAnchor="end" fontSize={12} fill="var(--muted)">
        {formatFixed(seconds, 0)} s
      </text>
      <text x={44} y={HEIGHT - 6} fontSize={12} fill="var(--ink)">
        flow shown, %
      </text>
    </Box>
  );
}

export function NoiseSheet({
  fields,
  rows,
  flowMax,
}: {
  fields: FlowFields;
  rows: readonly NoiseRow[];
  flowMax: number;
}) {
  return (
    <Sheet title="Noise, damping and how late it is" aside={`simulated, seed ${fields.seed}`}>
      <Columns columns="1.2fr 1fr">
        <DataTable
          label="Noise behind each damping"
          rows={rows}
          keyOf={({ dampingS }) => dampingS}
          columns={[
            [
              'Damping, s',
              ({ dampingS, isChosen }) => (
                <Box component="span" sx={{ fontWeight: isChosen ? 700 : 400 }}>
                  <Figure>{dampingS}</Figure>
                  {isChosen ? ' chosen' : ''}
                </Box>
              ),
            ],
            [
              `Scatter, ${fields.flowUnit}`,
              ({ damped }) => <Figure>{formatFixed((damped.deviationPercent / 100) * flowMax, 2)}</Figure>,
              'right',
            ],
            [
              '% of full scale',
              ({ damped }) => <Figure>{formatFixed(damped.deviationPercent, 2)}</Figure>,
              'right',
            ],
            [
              'Shown too much, %',
              ({ damped }) => <Figure>{formatSigned(damped.biasPercent, 2)}</Figure>,
              'right',
            ],
            ['63 % after, s', ({ damped }) => <Figure>{formatFixed(damped.to63S, 1)}</Figure>, 'right'],
            ['99 % after, s', ({ damped }) => <Figure>{formatFixed(damped.to99S, 1)}</Figure>, 'right'],
          ]}
        />
        <Trace rows={rows} />
      </Columns>
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        Standard deviations, with the cut-off in force. The root makes more of noise the less flows; near no
        flow its mean is above the truth, so that a cut-off or a damping before the root is what helps, and
        not a trim.
      </Typography>
    </Sheet>
  );
}
