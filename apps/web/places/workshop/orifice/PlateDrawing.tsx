import type { Plate } from '@barys/core/flow';
import Box from '@mui/material/Box';

const [WIDTH, HEIGHT] = [440, 250];
/** Half the height of the pipe as it is drawn, and where the plate stands. */
const [HALF, MIDDLE, AT] = [70, 120, 200];
const INCH_M = 0.0254;

/** How far up and down stream the taps are, pipe diameters; those that would leave the picture are broken. */
function distancesOf({ taps, pipeM }: Plate): readonly [up: number, down: number] {
  switch (taps) {
    case 'corner':
      return [0, 0];
    case 'flange':
      return [INCH_M / pipeM, INCH_M / pipeM];
    case 'D and D/2':
      return [1, 0.5];
  }
}

/** The plate in its pipe, bore and taps to scale; the flow comes from the left. */
export function PlateDrawing({ plate, boreMm, pipeMm }: { plate: Plate; boreMm: string; pipeMm: string }) {
  const bore = (plate.boreM / plate.pipeM) * HALF;
  const [up, down] = distancesOf(plate);
  const [left, right] = [AT - 6 - up * 2 * HALF, AT + 6 + down * 2 * HALF];
  const tap = (x: number) => `M ${x} ${MIDDLE - HALF} V 22`;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`Orifice plate of ${boreMm} mm in a pipe of ${pipeMm} mm, ${plate.taps} taps, drawn to scale`}
      sx={{ width: '100%', maxHeight: 270, display: 'block' }}
    >
      <path
        d={`M 16 ${MIDDLE - HALF} H ${WIDTH - 16} M 16 ${MIDDLE + HALF} H ${WIDTH - 16}`}
        stroke="var(--ink)"
        strokeWidth={4}
        fill="none"
      />
      <path
        d={`M ${AT - 5} ${MIDDLE - HALF} H ${AT + 5} V ${MIDDLE - bore - 4} L ${AT - 5} ${MIDDLE - bore} Z M ${AT - 5} ${MIDDLE + HALF} H ${AT + 5} V ${MIDDLE + bore + 4} L ${AT - 5} ${MIDDLE + bore} Z`}
        fill="var(--ink)"
      />
      <path d={`${tap(left)} ${tap(right)}`} stroke="var(--ink)" strokeWidth={3} fill="none" />
      <path
        d={`M 30 ${MIDDLE} H 84 M 74 ${MIDDLE - 6} L 86 ${MIDDLE} L 74 ${MIDDLE + 6}`}
        stroke="var(--now)"
        strokeWidth={2.5}
        fill="none"
      />
      <g fontSize={14} fill="var(--ink)">
        <text x={left} y={14} textAnchor="end">
          +
        </text>
        <text x={right + 2} y={14}>
          −
        </text>
        <text x={30} y={MIDDLE - 12} fill="var(--muted)" fontSize={13}>
          flow
        </text>
      </g>
      <path
        d={`M ${WIDTH - 60} ${MIDDLE - HALF} V ${MIDDLE + HALF} M ${AT + 60} ${MIDDLE - bore} V ${MIDDLE + bore} M ${AT + 8} ${MIDDLE - bore} H ${AT + 66} M ${AT + 8} ${MIDDLE + bore} H ${AT + 66}`}
        stroke="var(--muted)"
        strokeWidth={1}
        fill="none"
      />
      <g fontSize={14} fill="var(--ink)" stroke="var(--sheet)" strokeWidth={5} paintOrder="stroke">
        <text x={WIDTH - 60} y={MIDDLE + 5} textAnchor="middle">
          {pipeMm} mm
        </text>
        <text x={AT + 60} y={MIDDLE + 5} textAnchor="middle">
          {boreMm} mm
        </text>
      </g>
      <text x={AT} y={MIDDLE + HALF + 26} textAnchor="middle" fontSize={13} fill="var(--muted)">
        {plate.taps} taps, to scale
      </text>
    </Box>
  );
}
