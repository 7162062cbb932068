import { share, type Transfer } from '@barys/core/signal';
import Box from '@mui/material/Box';

const [WIDTH, HEIGHT] = [420, 300];
const [LEFT, BOTTOM] = [46, 40];
const POINTS = 240;

/** The low end of the root: plain, cut to zero, and with a linear start. */
export function StartCurves({
  cut,
  linear,
  knees,
  unit,
  show,
  differentialMax,
}: {
  cut: Transfer;
  linear: Transfer;
  /** Per cent of flow at which each ends. */
  knees: readonly [cut: number, linear: number];
  unit: string;
  show: (differential: number) => string;
  differentialMax: number;
}) {
  // So far that the root is seen to go on as itself.
  const most = Math.min(1, Math.max(0.0004, (Math.max(...knees) / 100) ** 2 * 4));
  const top = Math.sqrt(most);
  const x = (t: number): number => LEFT + (t / most) * (WIDTH - LEFT - 14);
  const y = (s: number): number => 12 + (1 - s / top) * (HEIGHT - BOTTOM - 12);
  const path = (transfer: Transfer): string =>
    Array.from({ length: POINTS + 1 }, (_, i) => (i / POINTS) * most)
      .map((t) => `${x(t).toFixed(1)},${y(share(transfer, t)).toFixed(1)}`)
      .join(' ');
  const ticks = [0, 0.5, 1];
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label="The low end of the root: cut to zero is a heavy line, the linear start is dashed, the plain root is thin. The figures are in the table."
      sx={{ width: '100%', maxHeight: 300, display: 'block' }}
    >
      {ticks.map((part) => (
        <g key={part} fontSize={13} fill="var(--muted)">
          <line x1={x(0)} x2={x(most)} y1={y(part * top)} y2={y(part * top)} stroke="var(--rule)" />
          <line x1={x(part * most)} x2={x(part * most)} y1={y(0)} y2={y(top)} stroke="var(--rule)" />
          <text x={LEFT - 6} y={y(part * top) + 4} textAnchor="end">
            {Number((part * top * 100).toPrecision(2))}
          </text>
          <text x={x(part * most)} y={HEIGHT - 22} textAnchor={part === 1 ? 'end' : 'middle'}>
            {show(part * most * differentialMax)}
          </text>
        </g>
      ))}
      <polyline points={path({ kind: 'square-root' })} fill="none" stroke="var(--ink)" strokeWidth={1} />
      <polyline
        points={path(linear)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.5}
        strokeDasharray="7 5"
      />
      <polyline points={path(cut)} fill="none" stroke="var(--now)" strokeWidth={3} />
      <text x={x(most / 2)} y={HEIGHT - 4} textAnchor="middle" fontSize={13} fill="var(--ink)">
        differential, {unit}
      </text>
      <text
        transform={`translate(12 ${y(top / 2)}) rotate(-90)`}
        textAnchor="middle"
        fontSize={13}
        fill="var(--ink)"
      >
        flow, %
      </text>
    </Box>
  );
}
