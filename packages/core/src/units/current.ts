/** Units of current that a loop is read in, as exact milliamperes. */
import { exact, toNumber } from '../exact';

const MILLIAMPERES = { A: exact(1000), mA: exact(1), uA: exact(1).div(1000) } as const;

export type CurrentUnit = keyof typeof MILLIAMPERES;

/**
 * Converts a current (SI prefixes, exact).
 * @throws CoreError `not-finite`
 * @example convertCurrent(0.02, 'A', 'mA') // 20
 */
export function convertCurrent(value: number, from: CurrentUnit, to: CurrentUnit): number {
  return toNumber(exact(value).mul(MILLIAMPERES[from]).div(MILLIAMPERES[to]));
}
