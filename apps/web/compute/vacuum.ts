import {
  decadeLimit,
  percentLimitInDecades,
  vacuumError,
  workLogarithmicOutput,
  workLogarithmicPressure,
} from '@barys/core/vacuum';
import { z } from 'zod';
import { calculation } from './calculation';
import { maybe, number, shownUnit, worked } from './schemas';

const decadeRange = z.strictObject({ low: number, high: number, outputLow: number, outputHigh: number });
const units = z
  .strictObject({ pressure: shownUnit, output: shownUnit })
  .default({ pressure: '', output: '' });

export const VACUUM_CALCULATIONS = [
  calculation(
    'vacuum-error',
    'Error of a gauge over decades, in per cent of the reference and in decades; null where that says nothing',
    z.strictObject({ reference: number, indicated: number }),
    z.object({ error: number, percentOfReference: maybe, decades: maybe }),
    ({ reference, indicated }) => vacuumError(reference, indicated),
  ),
  calculation(
    'decade-limit',
    'A limit in decades as per cent of reading, either side',
    z.strictObject({ decades: number }),
    z.object({ upperPercent: number, lowerPercent: number, factor: number }),
    ({ decades }) => decadeLimit(decades),
  ),
  calculation(
    'percent-limit-in-decades',
    'A limit in per cent of reading as decades, either side; lower is null from 100 % on',
    z.strictObject({ percent: number }),
    z.object({ upperDecades: number, lowerDecades: maybe }),
    ({ percent }) => percentLimitInDecades(percent),
  ),
  calculation(
    'logarithmic-output',
    'Signal that is linear in the logarithm of the pressure',
    z.strictObject({ range: decadeRange, pressure: number, units }),
    worked,
    ({ range, pressure, units: shown }) => workLogarithmicOutput(range, pressure, shown),
  ),
  calculation(
    'logarithmic-pressure',
    'Pressure that such a signal stands for',
    z.strictObject({ range: decadeRange, output: number, units }),
    worked,
    ({ range, output, units: shown }) => workLogarithmicPressure(range, output, shown),
  ),
];
