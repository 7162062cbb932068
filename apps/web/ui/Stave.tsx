/** The stave of an instrument: pressure against the body's limits, output, display. */
import { appliedAtPercent, displayedValue, expectedOutput } from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import { convertPressure, PRESSURE_UNITS } from '@barys/core/units';
import type { BodyLimits, Configuration } from '@barys/store/registers';
import { memo } from 'react';
import { StaveDrawing, type Join, type Rail } from './StaveDrawing';

const JOINS = [0, 25, 50, 75, 100];

function railsOf(body: BodyLimits, configuration: Configuration): [Rail, Rail, Rail] {
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
export const Stave = memo(function Stave({
  body,
  configuration,
  marker,
  spacing = 62,
}: {
  body: BodyLimits;
  configuration: Configuration;
  marker?: number | undefined;
  spacing?: number;
}) {
  const rails = railsOf(body, configuration);
  const [pressure, output] = rails;
  const { lrv, urv, outputLow, outputHigh } = configuration;
  const display = { low: configuration.displayLow, high: configuration.displayHigh };
  const joinAt = (applied: number, name: string): Join => {
    const output = expectedOutput(configuration, applied);
    return { name, values: [applied, output, displayedValue(configuration, display, output)] };
  };
  const summary =
    `${pressure.name} ${formatPlain(lrv)} to ${formatPlain(urv)} ${pressure.unit} gives ` +
    `${formatPlain(outputLow)} to ${formatPlain(outputHigh)} ${output.unit}; the body reaches ` +
    `from ${formatPlain(pressure.ends[0])} to ${formatPlain(pressure.ends[1])} ${pressure.unit}.`;
  return (
    <StaveDrawing
      rails={rails}
      joins={JOINS.map((percent) => joinAt(appliedAtPercent(configuration, percent), `${percent} %`))}
      marker={marker === undefined ? null : joinAt(marker, 'applied')}
      summary={summary}
      spacing={spacing}
    />
  );
});
