/** Codes of HART and their words: common tables of the published specifications (HCF_SPEC-183), from memory. */
import type { PressureUnit } from '@barys/core/units';

/** Table 2: engineering units of pressure that Barys has. */
export const UNIT_CODES: Readonly<Partial<Record<PressureUnit, number>>> = {
  inH2OAt68F: 1,
  inHgAt0C: 2,
  ftH2OAt68F: 3,
  mmH2OAt68F: 4,
  mmHgAt0C: 5,
  psi: 6,
  bar: 7,
  mbar: 8,
  gfPerCm2: 9,
  kgfPerCm2: 10,
  Pa: 11,
  kPa: 12,
  Torr: 13,
  atm: 14,
  inH2OAt60F: 145,
  cmH2OAt4C: 170,
  mH2OAt4C: 171,
  hPa: 174,
  MPa: 237,
  inH2OAt4C: 238,
  mmH2OAt4C: 239,
};
export const CELSIUS = 32;
export const VOLT = 58;
export const MILLIAMPERE = 39;
/** "Not used" in most tables. */
export const NOT_USED = 250;

/** @throws Error for a unit that is none of pressure, or none that Barys knows */
export function unitOfCode(code: number): PressureUnit {
  const found = Object.entries(UNIT_CODES).find(([, one]) => one === code);
  if (found === undefined) throw new Error(`It measures in a unit that Barys does not know (code ${code}).`);
  return found[0] as PressureUnit;
}

/** Table 3. */
export const TRANSFER_CODES = { linear: 0, 'square-root': 1 } as const;
export const SPECIAL_CURVE = 4;

/** Null for one that Barys does not write. */
export const transferOfCode = (code: number): keyof typeof TRANSFER_CODES | null =>
  code === TRANSFER_CODES.linear ? 'linear' : code === TRANSFER_CODES['square-root'] ? 'square-root' : null;

/** What became of a command; a code that is not here is said as such. */
const RESPONSES: Readonly<Record<number, string>> = {
  2: 'it does not take this choice',
  3: 'the figure is too large',
  4: 'the figure is too small',
  5: 'the command was cut',
  6: 'it has an error of its own',
  7: 'it is write protected',
  9: 'its range would be beyond its limits, or the pressure is too far from zero',
  10: 'its range would be beyond its limits',
  11: 'its loop current is not fixed at the figure that is trimmed, or it is not in the mode for this',
  14: 'the span would be too small',
  16: 'access is restricted',
  32: 'it is busy',
  64: 'it does not have this command',
};
/** Done, and something is to be said of it. */
const WARNINGS: ReadonlySet<number> = new Set([8, 14, 24, 25, 26, 27, 30, 31, 96, 97, 112, 113, 114, 115]);

/** Why a command was not done; null where it was. */
export function refusalOf(responseCode: number): string | null {
  if ((responseCode & 0x80) !== 0) return 'it did not understand what came over the loop';
  if (responseCode === 0 || WARNINGS.has(responseCode)) return null;
  return RESPONSES[responseCode] ?? `it says response code ${responseCode}`;
}

const STATUS: readonly (readonly [bit: number, words: string])[] = [
  [0x80, 'it says that something is wrong with it'],
  [0x08, 'its loop current is fixed'],
  [0x04, 'its loop current is saturated'],
  [0x02, 'another variable is beyond its limits'],
  [0x01, 'its measured value is beyond its limits'],
];
export const MALFUNCTION = 0x80;
export const LOOP_FIXED = 0x08;
export const LOOP_SATURATED = 0x04;
export const OUT_OF_LIMITS = 0x01;
export const CONFIGURATION_CHANGED = 0x40;

/** What an instrument says of its state, in words; empty where nothing is to be said. */
export const statusWords = (status: number): string[] =>
  STATUS.filter(([bit]) => (status & bit) !== 0).map(([, words]) => words);
