/**
 * Deviations read at a null meter, which is set to stand at nothing where the output is 0 % or 100 % of its span: they are
 * typed instead of the output, in their own unit, with their few digits.
 */
import { CoreError } from '../errors';
import { exactSum } from '../exact';
import type { SignalRange } from '../signal';
import { formatPlain, parseTyped, type TypedNumber } from '../text';

export const NULL_UNITS = ['output unit', '% of span'] as const;
export type NullUnit = (typeof NULL_UNITS)[number];

/** Which end of the output the meter is set to. */
export type NullAt = 0 | 100;

/**
 * The output that a deviation stands for, in the output unit; decimals stay decimals.
 * @throws CoreError `not-finite`
 * @example outputOfDeviation({ lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 }, 100, '% of span', -0.15) // 19.976
 */
export function outputOfDeviation(
  { outputLow, outputHigh }: SignalRange,
  at: NullAt,
  unit: NullUnit,
  deviation: number,
): number {
  if (!Number.isFinite(deviation))
    throw new CoreError({ code: 'not-finite', name: 'A deviation', value: deviation }, 'deviation');
  const inOutput =
    unit === 'output unit'
      ? deviation
      : Number(((deviation * Math.abs(outputHigh - outputLow)) / 100).toPrecision(12));
  return exactSum(at === 0 ? outputLow : outputHigh, inOutput);
}

const DECIMAL = String.raw`\d[\d.,]*|[.,]\d+`;
/** As it is typed: `0.02 null`, `-0.15 % null`. */
const TYPED = new RegExp(String.raw`^([-+\u2212]?)\s*(${DECIMAL})\s*(%?)\s*null$`, 'i');
/** As it is kept, with all that it takes to know the output: `4 + 0.02`, `20 - 0.15 % of 16`. */
const KEPT = new RegExp(String.raw`^(-?[\d.]+) ([-+]) (${DECIMAL})(?: % of ([\d.]+))?$`);

export const isDeviation = (text: string): boolean => TYPED.test(text.trim()) || KEPT.test(text);

/** The end that a null meter is set to at a point; null where it stands at nothing nowhere near. */
const endAt = ({ outputLow, outputHigh }: SignalRange, nominalPercent: number): number | null =>
  nominalPercent === 0 ? outputLow : nominalPercent === 100 ? outputHigh : null;

const plain = (value: number): string => formatPlain(value).replace('\u2212', '-');

/**
 * A deviation as it is kept, from what was typed at a point; a text that is kept already is given back where it belongs to
 * the point.
 * @param nominalPercent of the point, per cent of the input span
 * @throws CoreError `undefined-result` at a point other than 0 % and 100 %, or for a text of another range
 * @example keptDeviation({ lrv: 0, urv: 6, outputLow: 4, outputHigh: 20 }, 100, '-0.15 % null') // '20 - 0.15 % of 16'
 */
export function keptDeviation(range: SignalRange, nominalPercent: number, text: string): string {
  const base = endAt(range, nominalPercent);
  const refuse = (why: string) =>
    new CoreError({ code: 'undefined-result', name: 'A reading at a null meter', why });
  if (base === null)
    throw refuse('it is set to stand at nothing for 0 % or 100 % of the output; type the output itself here');
  const span = plain(Math.abs(range.outputHigh - range.outputLow));
  const kept = KEPT.exec(text);
  if (kept !== null) {
    if (kept[1] !== plain(base) || (kept[4] !== undefined && kept[4] !== span))
      throw refuse('this one was read in another range');
    return text;
  }
  const [, sign = '', digits = '', percent = ''] = TYPED.exec(text.trim()) ?? [];
  const way = sign === '-' || sign === '\u2212' ? '-' : '+';
  return `${plain(base)} ${way} ${parseTyped(digits).text}${percent === '' ? '' : ` % of ${span}`}`;
}

/**
 * An output as it is kept: a number, or a deviation from an end.
 * @throws CoreError for what is neither
 * @example parseOutput('20 - 0.15 % of 16').value // 19.976
 */
export function parseOutput(text: string): TypedNumber {
  const kept = KEPT.exec(text);
  if (kept === null) return parseTyped(text);
  const [, base = '', way, digits = '', span] = kept;
  const size = parseTyped(digits).value;
  const inOutput = span === undefined ? size : Number(((size * Number(span)) / 100).toPrecision(12));
  return { text, value: exactSum(Number(base), way === '-' ? -inOutput : inOutput) };
}
