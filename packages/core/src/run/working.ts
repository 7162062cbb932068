/** The working of one judged reading, and of a run's figures. */
import { expectedSteps, type RangeUnits, type SignalRange } from '../signal';
import { Working, type Given, type Step } from '../working';
import type { JudgedReading, RunEvaluation } from './evaluate';
import type { Tolerance, ToleranceTerm } from './tolerance';

const ERROR = 'error = reading - ideal at the applied value; IEC 61298-2, from memory';
const TOLERANCE = 'the tolerance of the instrument';

function termFormula(
  term: ToleranceTerm,
  domain: Tolerance['domain'],
  index: number,
  units: RangeUnits,
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
    x: { value: reading.applied, unit: units.input },
    m: { value: reading.output, unit: units.output },
    LRV: { value: range.lrv, unit: units.input },
    URV: { value: range.urv, unit: units.input },
    y_0: { value: range.outputLow, unit: units.output },
    y_100: { value: range.outputHigh, unit: units.output },
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
  const unit = tolerance.domain === 'output' ? units.output : units.input;
  if (tolerance.domain === 'input')
    work.step({
      what: 'Error referred to the input: what the reading stands for, less what was applied',
      symbol: 'e_in',
      formula: 'x_m - x',
      given: { ...ends, x_m: { value: reading.applied + reading.errorInput, unit: units.input } },
      unit,
      source: ERROR,
    });
  tolerance.terms.forEach((term, index) => {
    const { what, formula, given } = termFormula(term, tolerance.domain, index + 1, units);
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
  const limit = work.step({ what: 'Limit', symbol: 'L', formula: combined, unit, source: TOLERANCE });
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

const mean = (names: readonly string[]): string =>
  names.length === 1 ? (names[0] ?? '') : `(${names.join(' + ')}) / ${names.length}`;

/** How zero error, span error and hysteresis follow from the errors of a run; only those that the run gives. */
export function workFigures(range: SignalRange, evaluation: RunEvaluation): readonly Step[] {
  const work = new Working();
  const source = 'IEC 61298-2 and ISA-51.1, from memory';
  const pointMean = (nominalPercent: number, symbol: string, what: string): boolean => {
    const point = evaluation.points.find((one) => one.nominalPercent === nominalPercent);
    if (point === undefined) return false;
    const given: Record<string, Given> = {};
    if (point.up !== null) given['e_up'] = { value: point.up, unit: '%' };
    if (point.down !== null) given['e_down'] = { value: point.down, unit: '%' };
    work.step({ what, symbol, formula: mean(Object.keys(given)), given, unit: '%', source });
    return true;
  };
  const hasZero = pointMean(0, 'z', 'Zero error: mean error at 0 %');
  const hasFull = pointMean(100, 'e_100', 'Mean error at 100 %');
  if (hasZero && hasFull)
    work.step({
      what: 'Span error: actual less ideal span',
      symbol: 'p',
      formula: range.outputHigh > range.outputLow ? 'e_100 - z' : '-(e_100 - z)',
      unit: '%',
      source,
    });
  const pair = widestPair(evaluation);
  if (pair !== null)
    work.step({
      what: `Hysteresis: largest difference in one cycle, at ${pair.up.nominalPercent} % in cycle ${pair.up.cycle}`,
      symbol: 'h',
      formula: 'abs(e_falling - e_rising)',
      given: {
        e_falling: { value: pair.down.errorPercentSpan, unit: '%' },
        e_rising: { value: pair.up.errorPercentSpan, unit: '%' },
      },
      unit: '%',
      source: `${source}; dead band not subtracted`,
    });
  return work.steps;
}

function widestPair({ readings }: RunEvaluation): { up: JudgedReading; down: JudgedReading } | null {
  let widest: { up: JudgedReading; down: JudgedReading } | null = null;
  const width = (pair: { up: JudgedReading; down: JudgedReading }) =>
    Math.abs(pair.down.errorPercentSpan - pair.up.errorPercentSpan);
  for (const up of readings)
    for (const down of readings)
      if (
        up.direction === 'up' &&
        down.direction === 'down' &&
        up.cycle === down.cycle &&
        up.nominalPercent === down.nominalPercent &&
        (widest === null || width({ up, down }) > width(widest))
      )
        widest = { up, down };
  return widest;
}
