import { formatFixed } from '@barys/core/text';
import Box from '@mui/material/Box';
import type { SupplyRow } from './compute';

const [WIDTH, ROW, LEFT, TOP] = [420, 38, 60, 24];
const BAR = 24;

const PARTS: readonly (readonly [
  key: 'cable' | 'resistor' | 'barrier' | 'other',
  name: string,
  fill: string,
])[] = [
  ['cable', 'cable', 'var(--muted)'],
  ['resistor', 'resistor', 'var(--rule)'],
  ['barrier', 'barrier', 'var(--wash)'],
  ['other', 'other', 'var(--sheet)'],
];

/** The volts of the supply at each current: what stays in the loop, and what reaches the transmitter, against its lift-off. */
export function VoltBars({
  rows,
  supplyV,
  liftOffV,
}: {
  rows: readonly SupplyRow[];
  supplyV: number;
  liftOffV: number;
}) {
  const most = Math.max(supplyV, liftOffV) * 1.02;
  const x = (volt: number) => LEFT + (Math.max(0, Math.min(most, volt)) / most) * (WIDTH - LEFT - 12);
  const height = TOP + rows.length * ROW + 4;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label={`Volts of the supply by current: ${rows.map(({ milliamp, terminal }) => `${milliamp} mA leaves ${formatFixed(terminal, 2)} V`).join(', ')}; lift-off ${liftOffV} V`}
      sx={{ width: '100%', maxWidth: 760, display: 'block' }}
    >
      {rows.map((row, place) => {
        const y = TOP + place * ROW;
        const terminal = Math.max(0, row.terminal);
        let at = terminal;
        return (
          <g key={row.milliamp}>
            <text x={LEFT - 8} y={y + 17} textAnchor="end" fontSize={14} fill="var(--ink)">
              {row.milliamp} mA
            </text>
            <rect
              x={LEFT}
              y={y}
              width={x(terminal) - LEFT}
              height={BAR}
              fill={row.isEnough ? 'var(--ink)' : 'var(--outside)'}
            />
            {PARTS.map(([key, name, fill]) => {
              const from = at;
              at += row[key];
              return row[key] <= 0 ? null : (
                <rect
                  key={key}
                  x={x(from)}
                  y={y}
                  width={Math.max(0.5, x(at) - x(from))}
                  height={BAR}
                  fill={fill}
                  stroke="var(--ink)"
                  strokeWidth={1}
                >
                  <title>{`${name} ${formatFixed(row[key], 2)} V`}</title>
                </rect>
              );
            })}
            <text x={LEFT + 6} y={y + 17} fontSize={14} fontWeight={600} fill="var(--sheet)">
              {formatFixed(row.terminal, 2)} V
            </text>
          </g>
        );
      })}
      <line
        x1={x(liftOffV)}
        x2={x(liftOffV)}
        y1={TOP - 8}
        y2={height - 6}
        stroke="var(--now)"
        strokeWidth={2.5}
      />
      <text x={x(liftOffV)} y={14} textAnchor="middle" fontSize={13} fill="var(--ink)">
        lift-off {formatFixed(liftOffV, 1)} V
      </text>
    </Box>
  );
}
