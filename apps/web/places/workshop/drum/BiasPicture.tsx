import { formatSigned } from '@barys/core/text';
import Box from '@mui/material/Box';
import type { BiasMap, HotResult } from './compute';

const [WIDTH, HEIGHT, LEFT, TOP, BOTTOM] = [460, 330, 44, 8, 40];

/** The error that a bias leaves over pressure and level: the darker the worse, with figures where there is room. */
export function BiasPicture({ map, at }: { map: BiasMap; at: HotResult }) {
  const { pressures, levels, largest } = map;
  const cell = {
    width: (WIDTH - LEFT - 4) / pressures.length,
    height: (HEIGHT - TOP - BOTTOM) / levels.length,
  };
  const x = (index: number) => LEFT + index * cell.width;
  const y = (index: number) => TOP + (levels.length - 1 - index) * cell.height;
  const places: Places = { cell, x, y };
  const [lowest, highest] = [pressures[0]?.pascals ?? 0, pressures.at(-1)?.pascals ?? 1];
  const share = (at.pressurePa - lowest) / Math.max(1, highest - lowest);
  const ring = {
    cx: Math.max(LEFT, x(0.5) + share * (pressures.length - 1) * cell.width),
    cy: TOP + (HEIGHT - TOP - BOTTOM - cell.height) * (1 - at.truePercent / 100) + cell.height / 2,
  };
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`Error left by the bias over drum pressure and level; at most ${formatSigned(largest, 1)} % either way.`}
      sx={{ width: '100%', maxHeight: 380, display: 'block', fontFamily: 'inherit' }}
    >
      <Cells map={map} places={places} />
      <circle {...ring} r={8} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
      <Axes map={map} places={places} />
    </Box>
  );
}

interface Places {
  readonly cell: { readonly width: number; readonly height: number };
  readonly x: (column: number) => number;
  readonly y: (row: number) => number;
}

function Cells({
  map: { pressures, levels, errors, largest },
  places: { cell, x, y },
}: {
  map: BiasMap;
  places: Places;
}) {
  return (
    <>
      {pressures.map((pressure, column) =>
        levels.map((level, row) => {
          const error = errors[column]?.[row] ?? 0;
          const strength = largest === 0 ? 0 : Math.abs(error) / largest;
          return (
            <g key={`${pressure.pascals} ${level}`}>
              <rect
                x={x(column)}
                y={y(row)}
                width={cell.width}
                height={cell.height}
                fill={error > 0 ? 'var(--outside)' : 'var(--undecided)'}
                fillOpacity={0.06 + 0.3 * strength}
                stroke="var(--sheet)"
              />
              {column % 2 === 0 && row % 2 === 0 && (
                <text
                  x={x(column) + cell.width / 2}
                  y={y(row) + cell.height / 2 + 4}
                  textAnchor="middle"
                  fontSize={11.5}
                  fill="var(--ink)"
                >
                  {formatSigned(error, 1)}
                </text>
              )}
            </g>
          );
        }),
      )}
    </>
  );
}

function Axes({ map: { pressures, levels }, places: { cell, x, y } }: { map: BiasMap; places: Places }) {
  return (
    <>
      {levels.map((level, row) =>
        row % 2 === 0 ? (
          <text
            key={level}
            x={LEFT - 6}
            y={y(row) + cell.height / 2 + 4}
            textAnchor="end"
            fontSize={12}
            fill="var(--muted)"
          >
            {level}
          </text>
        ) : null,
      )}
      {pressures.map(({ pascals, at: word }, column) =>
        column % 4 === 0 ? (
          <text
            key={pascals}
            x={x(column) + cell.width / 2}
            y={HEIGHT - BOTTOM + 16}
            textAnchor="middle"
            fontSize={12}
            fill="var(--muted)"
          >
            {word}
          </text>
        ) : null,
      )}
      <text x={LEFT + (WIDTH - LEFT) / 2} y={HEIGHT - 5} textAnchor="middle" fontSize={12} fill="var(--ink)">
        drum pressure
      </text>
      <text
        transform={`translate(11 ${HEIGHT / 2 - 12}) rotate(-90)`}
        textAnchor="middle"
        fontSize={12}
        fill="var(--ink)"
      >
        true level, %
      </text>
    </>
  );
}
