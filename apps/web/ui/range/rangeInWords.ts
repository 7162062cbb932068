import { formatPlain } from '@barys/core/text';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { Configuration } from '@barys/store/registers';

/**
 * `0 … 6 bar → 4 … 20 mA → 0 … 6 bar`: input, output, display.
 * @param arrow what stands between them; the certificate's fonts have no arrow
 */
export function rangeInWords(configuration: Configuration, arrow = ' → '): string {
  const pair = (low: number, high: number, unit: string) =>
    `${formatPlain(low)} … ${formatPlain(high)} ${unit}`;
  const { lrv, urv, inputUnit, outputLow, outputHigh, outputUnit, displayLow, displayHigh, displayUnit } =
    configuration;
  return [
    pair(lrv, urv, PRESSURE_UNITS[inputUnit].label),
    pair(outputLow, outputHigh, outputUnit),
    pair(displayLow, displayHigh, displayUnit),
  ].join(arrow);
}
