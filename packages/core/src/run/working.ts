/** The working of one reading: how it was judged, its error in every term, the band it is accepted in. */
import {
  appliedForOutput,
  expectedOutput,
  expectedSteps,
  transferOf,
  type RangeUnits,
  type SignalRange,
} from '../signal';
import { Working, type Given, type Step, type Worked } from '../working';
import type { JudgedReading } from './evaluate';
import { acceptedOutput, accuracyRatio, errorTerms } from './limits';
import { isMiddleOfScale, type Tolerance, type ToleranceTerm } from './tolerance';

const ERROR = 'error = reading - ideal at the applied value; IEC 61298-2, from memory';
const TOLERANCE = 'the tolerance of the instrument';

function termFormula(
  term: ToleranceTerm,
  domain: Tolerance['domain'],
  index: number,
  units: RangeUnits,
  isMiddle: boolean,
): { what: string; formula: string; given: Record<string, Given> } {
  const inOutput = domain === 'output';
  const toDomain = (isOutput: boolean) =>
    isOutput === inOutput
      ? ''
      : inOutput
        ? ' * abs((y_100 - y_0) / (URV - LRV))'
        : ' * abs((URV - LRV) / (y_100 - y_0))';
  const name = `a_${index}`;
  const percent = (value: number): Record<string, Given> => ({ [name]: { value, unit: '%' } });
  switch (term.kind) {
    case 'percent-of-span':
      return {
        what: 'Per cent of span',
        formula: `${name} / 100 * abs(${inOutput ? 'y_100 - y_0' : 'URV - LRV'})`,
        given: percent(term.percent),
      };
    case 'percent-of-span-in-zones':
      return {
        what: `Per cent of span: ${term.middlePercent} in the middle half of the scale, ${term.outerPercent} outside it`,
        formula: `${name} / 100 * abs(${inOutput ? 'y_100 - y_0' : 'URV - LRV'})`,
        given: percent(isMiddle ? term.middlePercent : term.outerPercent),
      };
    case 'percent-of-reading':
      return term.of === 'applied'
        ? {
            what: 'Per cent of the applied value',
            formula: `${name} / 100 * abs(x)${toDomain(false)}`,
            given: percent(term.percent),
          }
        : {
            what: 'Per cent of the ideal output',
            formula: `${name} / 100 * abs(y)${toDomain(true)}`,
            given: percent(term.percent),
          };
    case 'percent-of-upper-range-limit':
      return {
        what: 'Per cent of the upper range limit',
        formula: `${name} / 100 * abs(URL)${toDomain(false)}`,
        given: { ...percent(term.percent), URL: { value: term.upperRangeLimit, unit: units.input } },
      };
    case 'absolute':
      return {
        what: 'Fixed amount',
        formula: `${name}${toDomain(term.in === 'output')}`,
        given: { [name]: { value: term.value, unit: units[term.in] } },
      };
    case 'scale-divisions':
      return {
        what: 'Scale divisions',
        formula: `${name} * d_${index}${toDomain(true)}`,
        given: {
          [name]: { value: term.divisions, unit: 'divisions' },
          [`d_${index}`]: { value: term.division, unit: units.output },
        },
      };
  }
}

/** The steps up to the limit, which later steps know as `L`. */
function limitSteps(
  work: Working,
  range: SignalRange,
  applied: number,
  tolerance: Tolerance,
  ends: Readonly<Record<string, Given>>,
  units: RangeUnits,
): number {
  const unit = units[tolerance.domain];
  tolerance.terms.forEach((term, index) => {
    const { what, formula, given } = termFormula(
      term,
      tolerance.domain,
      index + 1,
      units,
      isMiddleOfScale(range, expectedOutput(range, applied)),
    );
    work.step({
      what,
      symbol: `L_${index + 1}`,
      formula,
      given: { ...ends, ...given },
      unit,
      source: TOLERANCE,
    });
  });
  const names = tolerance.terms.map((_, index) => `L_${index + 1}`);
  const [first = 'L_1'] = names;
  const combined = {
    sum: names.join(' + '),
    maximum: names.length === 1 ? first : `max(${names.join(', ')})`,
    'root-sum-square': `sqrt(${names.map((name) => `${name}^2`).join(' + ')})`,
  }[tolerance.combine];
  return work.step({ what: 'Limit', symbol: 'L', formula: combined, unit, source: TOLERANCE });
}

const endsOf = (range: SignalRange, units: RangeUnits): Record<string, Given> => ({
  LRV: { value: range.lrv, unit: units.input },
  URV: { value: range.urv, unit: units.input },
  y_0: { value: range.outputLow, unit: units.output },
  y_100: { value: range.outputHigh, unit: units.output },
});

/**
 * How one reading was judged: ideal output, error, limit, and the error as a part of the limit.
 * Symbols: e error, L limit, r their ratio.
 */
export function workReading(
  range: SignalRange,
  tolerance: Tolerance,
  reading: JudgedReading,
  units: RangeUnits,
): readonly Step[] {
  const work = new Working();
  expectedSteps(work, range, reading.applied, units);
  const ends: Record<string, Given> = {
    ...endsOf(range, units),
    x: { value: reading.applied, unit: units.input },
    m: { value: reading.output, unit: units.output },
  };
  work.step({ what: 'Error', symbol: 'e', formula: 'm - y', given: ends, unit: units.output, source: ERROR });
  work.step({
    what: 'Error in per cent of the output span',
    symbol: 'e_span',
    formula: '100 * e / abs(y_100 - y_0)',
    given: ends,
    unit: '%',
    source: ERROR,
  });
  const unit = units[tolerance.domain];
  if (tolerance.domain === 'input')
    work.step({
      what: 'Error referred to the input: what the reading stands for, less what was applied',
      symbol: 'e_in',
      formula: 'x_m - x',
      given: { ...ends, x_m: { value: reading.applied + reading.errorInput, unit: units.input } },
      unit,
      source: ERROR,
    });
  const limit = limitSteps(work, range, reading.applied, tolerance, ends, units);
  if (limit > 0)
    work.step({
      what: 'Error as a part of the limit; on the limit is inside',
      symbol: 'r',
      formula: tolerance.domain === 'output' ? 'e / L' : 'e_in / L',
      unit: '',
      source: 'simple acceptance, common practice',
    });
  return work.steps;
}

/**
 * One error in the terms that `errorTerms` gives: e output, e_span, e_in, e_rdg, e_URL, e_div.
 * @throws CoreError as `errorTerms`
 */
export function workErrorTerms(
  range: SignalRange,
  applied: number,
  output: number,
  sizes: { upperRangeLimit?: number; division?: number },
  units: RangeUnits,
): readonly Step[] {
  errorTerms(range, applied, output, sizes);
  const work = new Working();
  expectedSteps(work, range, applied, units);
  const x = { value: applied, unit: units.input };
  const given: Record<string, Given> = {
    ...endsOf(range, units),
    x,
    m: { value: output, unit: units.output },
  };
  const step = (what: string, symbol: string, formula: string, unit: string): number =>
    work.step({ what, symbol, formula, given, unit, source: ERROR });
  step('Error', 'e', 'm - y', units.output);
  step('Error in per cent of the output span', 'e_span', '100 * e / abs(y_100 - y_0)', '%');
  given['x_m'] = { value: appliedForOutput(range, output), unit: units.input };
  step('Error referred to the input', 'e_in', 'x_m - x', units.input);
  if (applied !== 0) step('The same in per cent of the applied value', 'e_rdg', '100 * e_in / abs(x)', '%');
  if (sizes.upperRangeLimit !== undefined) {
    given['URL'] = { value: sizes.upperRangeLimit, unit: units.input };
    step('The same in per cent of the upper range limit', 'e_URL', '100 * e_in / abs(URL)', '%');
  }
  if (sizes.division !== undefined) {
    given['d'] = { value: sizes.division, unit: units.output };
    step('Error in scale divisions', 'e_div', 'e / d', 'divisions');
  }
  return work.steps;
}

/**
 * The band of accepted outputs; ends in y_low and y_high, in whichever order the range puts them.
 * @throws CoreError as `acceptedOutput`
 */
export function workAcceptedOutput(
  range: SignalRange,
  tolerance: Tolerance,
  applied: number,
  units: RangeUnits,
): readonly Step[] {
  acceptedOutput(range, tolerance, applied);
  const work = new Working();
  expectedSteps(work, range, applied, units);
  const ends = { ...endsOf(range, units), x: { value: applied, unit: units.input } };
  const limit = limitSteps(work, range, applied, tolerance, ends, units);
  if (tolerance.domain === 'output') {
    const source = 'ideal output less and plus the limit';
    work.step({ what: 'Lowest', symbol: 'y_low', formula: 'y - L', unit: units.output, source });
    work.step({ what: 'Highest', symbol: 'y_high', formula: 'y + L', unit: units.output, source });
    return work.steps;
  }
  const isReversed = expectedOutput(range, applied - limit) > expectedOutput(range, applied + limit);
  for (const [what, symbol, sign] of [
    ['Lowest', 'y_low', isReversed ? '+' : '-'],
    ['Highest', 'y_high', isReversed ? '-' : '+'],
  ] as const) {
    const edge = work.step({
      what: `${what}: the input at the edge of the limit`,
      symbol: 'x_L',
      formula: `x ${sign} L`,
      given: ends,
      unit: units.input,
      source: TOLERANCE,
    });
    expectedSteps(work, range, edge, units);
    work.step({
      what: `${what} output: the ideal one at that edge`,
      symbol,
      formula: 'y',
      unit: units.output,
      source: TOLERANCE,
    });
  }
  return work.steps;
}

/**
 * The ratio of the tolerance to the accuracy of the standard where it is least; ends in AR.
 * @throws CoreError as `accuracyRatio`
 */
export function workAccuracyRatio(
  range: SignalRange,
  tolerance: Tolerance,
  standardAccuracyInput: number,
  units: RangeUnits,
  points?: readonly number[],
): Worked & { readonly applied: number } {
  const { applied, ratio } = accuracyRatio(range, tolerance, standardAccuracyInput, points);
  const work = new Working();
  const expected = expectedSteps(work, range, applied, units);
  const ends = { ...endsOf(range, units), x: { value: applied, unit: units.input } };
  limitSteps(work, range, applied, tolerance, ends, units);
  const given: Record<string, Given> = { ...ends, a: { value: standardAccuracyInput, unit: units.input } };
  const source = 'common practice';
  const isReferred = tolerance.domain === 'output';
  if (isReferred && transferOf(range).kind === 'linear')
    work.step({
      what: 'What the accuracy of the standard makes at the output',
      symbol: 'a_y',
      formula: 'a * abs((y_100 - y_0) / (URV - LRV))',
      given,
      unit: units.output,
      source,
    });
  else if (isReferred) {
    const moved = (side: 1 | -1) =>
      Math.abs(expectedOutput(range, applied + side * standardAccuracyInput) - expected);
    const side = moved(-1) > moved(1) ? -1 : 1;
    const away = work.step({
      what: 'The applied value moved by the accuracy to the side where the output moves further',
      symbol: 'x_a',
      formula: side > 0 ? 'x + a' : 'x - a',
      given,
      unit: units.input,
      source,
    });
    expectedSteps(work, range, away, units);
    work.step({
      what: 'What the accuracy of the standard makes at the output',
      symbol: 'a_y',
      formula: 'abs(y - y_x)',
      given: { y_x: { value: expected, unit: units.output } },
      unit: units.output,
      source,
    });
  }
  work.step({
    what: 'Accuracy ratio at the point where it is least: at least 4 is common practice',
    symbol: 'AR',
    formula: isReferred ? 'L / a_y' : 'L / a',
    given,
    unit: '',
    source,
  });
  return { value: ratio, applied, working: work.steps };
}
