/** How finely the figures of one instrument are shown: by what the reference and the meter resolve. */
import {
  decimalsForResolution,
  formatFixed,
  formatSigned,
  outputSpan,
  PRESSURE_UNITS,
  resolutionForSpan,
} from '@barys/core';
import type { Configuration } from '@barys/store';

/** The customary last digit of a loop meter, mA; used until a meter is chosen. */
const USUAL_METER_RESOLUTION = 0.001;

export interface Figures {
  readonly inputUnit: string;
  readonly outputUnit: string;
  /** An input without its unit. */
  input(value: number): string;
  /** An output without its unit. */
  output(value: number): string;
  /** An error in per cent of span, signed, without the sign of per cent. */
  percent(value: number): string;
  /** The same without a sign, for amounts that have none. */
  amount(value: number): string;
}

/**
 * A point that does not fall on the usual last digit is shown whole where two more digits do that: 31.25 of 500, which
 * would be set as 31.3 otherwise. One that never ends, such as a third, keeps the usual digits.
 */
function decimalsFor(value: number, usual: number): number {
  for (let decimals = usual; decimals <= usual + 2; decimals += 1)
    if (Math.abs(Number(value.toFixed(decimals)) - value) <= 1e-12 * Math.abs(value)) return decimals;
  return usual;
}

export function figuresFor(configuration: Configuration, meterResolution = USUAL_METER_RESOLUTION): Figures {
  const inputDecimals = decimalsForResolution(resolutionForSpan(configuration.urv - configuration.lrv));
  const outputDecimals = decimalsForResolution(meterResolution);
  const percentDecimals = decimalsForResolution((meterResolution / outputSpan(configuration)) * 100);
  return {
    inputUnit: PRESSURE_UNITS[configuration.inputUnit].label,
    outputUnit: configuration.outputUnit,
    input: (value) => formatFixed(value, decimalsFor(value, inputDecimals)),
    output: (value) => formatFixed(value, outputDecimals),
    percent: (value) => formatSigned(value, percentDecimals),
    amount: (value) => formatFixed(value, percentDecimals),
  };
}
