import Box from '@mui/material/Box';
import { LEVELS, type DrumRow } from './compute';

const SIZE = 300;
const LEFT = 44;
const BOTTOM = 34;
/** From a little below the range to a little above it, %. */
const [LOW, HIGH] = [-20, 140];
const x = (percent: number): number => LEFT + (percent / 100) * (SIZE - LEFT - 10);
const y = (percent: number): number =>
  10 + ((HIGH - Math.min(HIGH, Math.max(LOW, percent))) / (HIGH - LOW)) * (SIZE - BOTTOM - 10);

/** Shown against true level: the pressure that the range is made for lies on the diagonal. */
export function IndicationCurves({ rows }: { rows: readonly DrumRow[] }) {
  const [cold] = rows;
  const lowest = rows[1];
  const ticks = [0, 50, 100];
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      role="img"
      aria-label="Shown against true level: cold is dashed, the lower pressures are thinner. The figures are in the table."
      sx={{ width: '100%', maxHeight: 330, display: 'block' }}
    >
      {ticks.map((tick) => (
        <g key={tick} fontSize={13} fill="var(--muted)">
          <line x1={x(tick)} x2={x(tick)} y1={y(HIGH)} y2={y(LOW)} stroke="var(--rule)" />
          <line x1={x(0)} x2={x(100)} y1={y(tick)} y2={y(tick)} stroke="var(--rule)" />
          <text x={x(tick)} y={SIZE - 18} textAnchor="middle">
            {tick}
          </text>
          <text x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
            {tick}
          </text>
        </g>
      ))}
      {rows.map((row, index) => (
        <polyline
          key={row.at}
          points={row.shown.map((percent, place) => `${x(LEVELS[place] ?? 0)},${y(percent)}`).join(' ')}
          fill="none"
          stroke={index === rows.length - 2 ? 'var(--now)' : 'var(--ink)'}
          strokeWidth={index === rows.length - 2 ? 3 : 0.8 + index * 0.2}
          strokeDasharray={row === cold ? '6 4' : undefined}
        />
      ))}
      <text x={x(50)} y={SIZE - 3} textAnchor="middle" fontSize={13} fill="var(--ink)">
        true level, %
      </text>
      <text
        transform={`translate(11 ${y(50)}) rotate(-90)`}
        textAnchor="middle"
        fontSize={13}
        fill="var(--ink)"
      >
        shown, %
      </text>
      {[cold, lowest].map(
        (row, index) =>
          row !== undefined && (
            <text
              key={row.at}
              x={x(100) - 4}
              y={Math.max(14, y(row.shown.at(-1) ?? 0) + (index === 0 ? -6 : 16))}
              textAnchor="end"
              fontSize={13}
              fill="var(--ink)"
              stroke="var(--sheet)"
              strokeWidth={3}
              paintOrder="stroke"
            >
              {row.at}
            </text>
          ),
      )}
    </Box>
  );
}
