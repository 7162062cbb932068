/** Show the working of an interval: where the point that leads out first is at its end, and what its family says. */
import { MONTH_DAYS, outsideProbability, studentOf, YEAR_DAYS } from '../drift';
import { formatSigned } from '../text';
import { Working, type Given, type Step } from '../working';
import { outsidePart } from './exponential';
import type { FamilyFigures } from './family';
import type { PointDrift } from './followed';

const LEAST_SQUARES = 'Textbook: least squares, prediction of one new value';
const percent = (value: number): Given => ({ value, unit: '%' });
const plain = (value: number): Given => ({ value, unit: '' });
const days = (value: number): Given => ({ value, unit: 'd' });

/**
 * How the probability of being found inside at the end of an interval follows from the calibrations of one point.
 * @param months the interval, from the last calibration on
 */
export function workDrift(drift: PointDrift, months: number): readonly Step[] {
  const work = new Working();
  stepsOfLine(work, drift.line, months);
  stepsOfBounds(work, drift, months);
  return work.steps;
}

/** A figure that is worked out elsewhere, with how. */
const take = (
  work: Working,
  step: Pick<Step, 'what' | 'symbol' | 'notation' | 'unit' | 'source'>,
  value: number,
) => work.step({ ...step, formula: 'v', given: { v: { value, unit: step.unit } } });

/** The error that the line gives at the end of the interval. */
function stepsOfLine(work: Working, line: PointDrift['line'], months: number): void {
  take(
    work,
    {
      what: 'Drift: the slope of the line through the errors, adjustments taken out',
      symbol: 'b',
      notation: '\\frac{\\sum (d_i - \\bar{d})(e_i - \\bar{e})}{\\sum (d_i - \\bar{d})^2}',
      unit: '%/d',
      source: LEAST_SQUARES,
    },
    line.slopePerDay,
  );
  work.step({
    what: 'The same a year',
    symbol: 'b_year',
    formula: 'b Y',
    given: { Y: days(YEAR_DAYS) },
    unit: '%',
    source: 'The mean year of the calendar',
  });
  work.step({
    what: 'From the mean day of the calibrations to the end of the interval',
    symbol: 'x',
    formula: 'd_last + I m - d_mean',
    given: {
      d_last: days(line.lastDay - line.firstDay),
      d_mean: days(line.meanDay - line.firstDay),
      I: plain(months),
      m: days(MONTH_DAYS),
    },
    unit: 'd',
    source: 'Days count from the first calibration; a month is a twelfth of the mean year',
  });
  work.step({
    what: 'Error that the line gives there',
    symbol: 'e',
    formula: 'e_mean + b x',
    given: { e_mean: percent(line.meanError) },
    unit: '%',
    source: LEAST_SQUARES,
  });
}

/** Where one new calibration lies about it, and how likely it is inside. */
function stepsOfBounds(work: Working, { line, band }: PointDrift, months: number): void {
  const day = line.lastDay + months * MONTH_DAYS;
  work.step({
    what: 'Standard deviation of one new calibration about the line',
    symbol: 's_new',
    formula: 's sqrt(1 + 1 / n + x^2 / S)',
    given: { s: percent(line.residual), n: plain(line.count), S: { value: line.spread, unit: 'd²' } },
    unit: '%',
    source: LEAST_SQUARES,
  });
  take(
    work,
    {
      what: `Student's factor for 95 %, ${line.degreesOfFreedom} degrees of freedom`,
      symbol: 'k',
      notation: 't_{0.975}',
      unit: '',
      source: 'Student’s distribution, two-sided',
    },
    studentOf('two-sided', line.degreesOfFreedom),
  );
  work.step({
    what: 'Lower bound',
    symbol: 'e_low',
    formula: 'e - k s_new',
    unit: '%',
    source: LEAST_SQUARES,
  });
  work.step({
    what: 'Upper bound',
    symbol: 'e_high',
    formula: 'e + k s_new',
    unit: '%',
    source: LEAST_SQUARES,
  });
  take(
    work,
    {
      what: `Probability of being outside ${formatSigned(band.low, 3)} and ${formatSigned(band.high, 3)} %, the limits on the line`,
      symbol: 'P_out',
      notation:
        'T\\!\\left(\\frac{L_{-} - e}{s_{new}}\\right) + T\\!\\left(\\frac{e - L_{+}}{s_{new}}\\right)',
      unit: '',
      source: 'Student’s distribution of the new value',
    },
    outsideProbability(line, day, band),
  );
  work.step({
    what: 'Found inside at the end',
    symbol: 'R',
    formula: '1 - P_out',
    unit: '',
    source: 'The point that is likeliest outside then',
  });
}

/**
 * How what an interval lets through follows from its family; no steps where nobody of it was found out, or everybody.
 * @param months the interval
 */
export function workFamily({ calibrations, out, rate }: FamilyFigures, months: number): readonly Step[] {
  if (!Number.isFinite(rate) || rate === 0) return [];
  const work = new Working();
  const source = 'Exponential model of reliability, common practice';
  work.step({
    what: `Most likely rate of going outside, from ${out} found out of ${calibrations}`,
    symbol: 'lambda',
    formula: 'v',
    given: { v: { value: rate, unit: '1/month' } },
    unit: '1/month',
    notation:
      '\\arg\\max \\sum \\left[-(n_i - r_i)\\,\\lambda t_i + r_i \\ln\\left(1 - e^{-\\lambda t_i}\\right)\\right]',
    source: `${source}: maximum likelihood`,
  });
  work.step({
    what: 'Found inside at the end of the interval',
    symbol: 'R',
    formula: 'exp(-lambda I)',
    given: { I: { value: months, unit: 'month' } },
    unit: '',
    source,
  });
  work.step({
    what: 'Part of the time outside, unseen: the mean of what is outside from its beginning to its end',
    symbol: 'u',
    formula: 'v',
    given: { v: plain(outsidePart(rate, months)) },
    notation: '1 - \\frac{1 - e^{-\\lambda I}}{\\lambda I}',
    unit: '',
    source,
  });
  return work.steps;
}
