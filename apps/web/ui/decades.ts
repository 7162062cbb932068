import { formatSigned } from '@barys/core/text';

/** How many decades a reading lies above what was applied, signed; empty where one of them has no logarithm. */
export const decadesOf = (applied: number, output: number): string =>
  applied > 0 && output > 0 ? formatSigned(Math.log10(output / applied), 3) : '';
