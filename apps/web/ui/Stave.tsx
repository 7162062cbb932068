/**
 * Parallel rails, one for each thing the same signal is called; thin lines join the same point on every rail, so that
 * a shifted zero leans and a reversed range crosses. Drawn with boxes and lines in per cent, so that its words keep
 * their size on any screen.
 */
import { convertPressure, formatPlain, PRESSURE_UNITS } from '@barys/core';
import type { Body, Configuration } from '@barys/store';
import Box from '@mui/material/Box';
import { visuallyHidden } from '@mui/utils';
import { Figure } from './Figure';

interface Rail {
  readonly name: string;
  readonly unit: string;
  /** Values at the rail's two ends. */
  readonly ends: readonly [left: number, right: number];
  /** Values at 0 and 100 % of the range. */
  readonly range: readonly [low: number, high: number];
}

const JOINS = [0, 25, 50, 75, 100];
const place = ({ ends: [left, right] }: Rail, value: number): number =>
  ((value - left) / (right - left)) * 100;
const valueAt = ({ range: [low, high] }: Rail, percent: number): number =>
  low + ((high - low) * percent) / 100;

function railsOf(body: Body, configuration: Configuration): [Rail, Rail, Rail] {
  const { inputUnit, lrv, urv, outputLow, outputHigh, outputUnit, displayLow, displayHigh, displayUnit } =
    configuration;
  const limit = (value: number) => convertPressure(value, body.unit, inputUnit);
  return [
    {
      name: 'Pressure',
      unit: PRESSURE_UNITS[inputUnit].label,
      ends: [limit(body.lowerRangeLimit), limit(body.upperRangeLimit)],
      range: [lrv, urv],
    },
    {
      name: 'Output',
      unit: outputUnit,
      ends: [Math.min(outputLow, outputHigh), Math.max(outputLow, outputHigh)],
      range: [outputLow, outputHigh],
    },
    {
      name: 'Display',
      unit: displayUnit,
      ends: [Math.min(displayLow, displayHigh), Math.max(displayLow, displayHigh)],
      range: [displayLow, displayHigh],
    },
  ];
}

/** @param marker an input to point out on every rail, in the input unit */
export function Stave({
  body,
  configuration,
  marker,
  spacing = 62,
}: {
  body: Body;
  configuration: Configuration;
  marker?: number | undefined;
  spacing?: number;
}) {
  const rails = railsOf(body, configuration);
  const [pressure, output] = rails;
  const height = spacing * 2 + 44;
  const railTop = (index: number) => 20 + index * spacing;
  const atPercent =
    marker === undefined
      ? null
      : ((marker - configuration.lrv) / (configuration.urv - configuration.lrv)) * 100;
  const summary =
    `${pressure.name} ${formatPlain(configuration.lrv)} to ${formatPlain(configuration.urv)} ${pressure.unit} gives ` +
    `${formatPlain(configuration.outputLow)} to ${formatPlain(configuration.outputHigh)} ${output.unit}; the body reaches ` +
    `from ${formatPlain(pressure.ends[0])} to ${formatPlain(pressure.ends[1])} ${pressure.unit}.`;
  return (
    <Box>
      <Box
        role="img"
        aria-label={`Signal stave. ${summary}`}
        sx={{ position: 'relative', height, mr: 1, ml: '84px' }}
      >
        <svg
          width="100%"
          height={height}
          viewBox={`0 0 100 ${height}`}
          preserveAspectRatio="none"
          style={{ position: 'absolute', inset: 0 }}
          aria-hidden
        >
          {rails
            .slice(1)
            .map((rail, index) =>
              [
                ...JOINS.map((percent) => ({ percent, isMarker: false })),
                { percent: atPercent, isMarker: true },
              ].map(
                ({ percent, isMarker }) =>
                  percent !== null && (
                    <line
                      key={`${rail.name} ${percent} ${isMarker}`}
                      x1={place(rails[index] ?? pressure, valueAt(rails[index] ?? pressure, percent))}
                      y1={railTop(index)}
                      x2={place(rail, valueAt(rail, percent))}
                      y2={railTop(index + 1)}
                      stroke={isMarker ? 'var(--now)' : 'var(--muted)'}
                      strokeWidth={isMarker ? 3 : 1}
                      opacity={isMarker ? 1 : 0.6}
                      vectorEffect="non-scaling-stroke"
                    />
                  ),
              ),
            )}
        </svg>
        {rails.map((rail, index) => (
          <RailDrawing key={rail.name} rail={rail} top={railTop(index)} isBody={index === 0} />
        ))}
      </Box>
      <Box sx={visuallyHidden}>
        <table>
          <caption>The same points on every rail</caption>
          <thead>
            <tr>
              <th>Point</th>
              {rails.map((rail) => (
                <th key={rail.name}>
                  {rail.name}, {rail.unit}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {JOINS.map((percent) => (
              <tr key={percent}>
                <td>{percent} %</td>
                {rails.map((rail) => (
                  <td key={rail.name}>{formatPlain(valueAt(rail, percent))}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
    </Box>
  );
}

function RailDrawing({ rail, top, isBody }: { rail: Rail; top: number; isBody: boolean }) {
  const [from, to] = rail.range.map((value) => place(rail, value)) as [number, number];
  const [left, right] = [Math.min(from, to), Math.max(from, to)];
  const label = (value: number, at: number, where: 'above' | 'below') => (
    <Box
      key={`${value} ${where}`}
      sx={{
        position: 'absolute',
        left: `${at}%`,
        top: where === 'above' ? top - 22 : top + 7,
        transform: `translateX(${at > 90 ? '-100%' : at < 10 ? '0' : '-50%'})`,
        fontSize: 13,
        color: where === 'above' ? 'text.secondary' : 'text.primary',
      }}
    >
      <Figure>{formatPlain(value)}</Figure>
    </Box>
  );
  const isWhole = left <= 0 && right >= 100;
  return (
    <>
      <Box
        sx={{ position: 'absolute', left: 0, right: 0, top: top - 4, height: 8, bgcolor: 'var(--rule)' }}
      />
      <Box
        sx={{
          position: 'absolute',
          left: `${left}%`,
          width: `${right - left}%`,
          top: top - 4,
          height: 8,
          bgcolor: 'var(--ink)',
        }}
      />
      {isBody && !isWhole && (
        <>
          {label(rail.ends[0], 0, 'above')}
          {label(rail.ends[1], 100, 'above')}
        </>
      )}
      {label(rail.range[0], from, 'below')}
      {label(rail.range[1], to, 'below')}
      <Box
        sx={{ position: 'absolute', left: '-84px', width: 78, top: top - 17, fontSize: 14, lineHeight: 1.2 }}
      >
        {rail.name}
        <Box sx={{ color: 'text.secondary', fontSize: 13 }}>{rail.unit}</Box>
      </Box>
    </>
  );
}
