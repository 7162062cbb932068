/** What was read of an instrument, with the digits that mean something. */
import { decimalsForResolution, formatFixed } from '../text';
import { isPressureUnit, unitLabel } from '../units';
import type { ReadSetup } from './port';

/** As finely as five digits of the span. */
const FINE = 1e-5;

export const unitWords = (unit: string): string => (isPressureUnit(unit) ? unitLabel(unit) : unit);

/** The digital value in its unit. */
export const digitalWords = ({ value, lrv, urv, unit }: ReadSetup): string =>
  `${formatFixed(value, decimalsForResolution(Math.abs(urv - lrv) * FINE || FINE))} ${unitWords(unit)}`;

/** What it believes that it puts out. */
export const outputWords = ({ milliamp }: Pick<ReadSetup, 'milliamp'>): string =>
  `${formatFixed(milliamp, 3)} mA`;
