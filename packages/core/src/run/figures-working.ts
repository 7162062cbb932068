/** The working of a run's figures, each from the errors that it rests on; only those that the run gives. */
import type { SignalRange } from '../signal';
import { Working, type Given, type Step } from '../working';
import { pointColumns, type JudgedReading, type RunEvaluation } from './evaluate';
import { independentDeviation, terminalDeviation, zeroBasedDeviation } from './linearity';
import type { PointMeans } from './points';

const SOURCE = 'IEC 61298-2 and ISA-51.1, from memory';

const percent = (value: number): Given => ({ value, unit: '%' });
const plain = (value: number): Given => ({ value, unit: '' });

const meanOf = (names: readonly string[]): string =>
  names.length === 1 ? (names[0] ?? '') : `(${names.join(' + ')}) / ${names.length}`;

/** How every figure of a run follows from its errors. */
export function workFigures(range: SignalRange, evaluation: RunEvaluation): readonly Step[] {
  const work = new Working();
  zeroAndSpanSteps(work, range, evaluation);
  hysteresisSteps(work, evaluation);
  spreadSteps(work, evaluation);
  linearitySteps(work, evaluation);
  leastSquaresSteps(work, range, evaluation);
  return work.steps;
}

function zeroAndSpanSteps(work: Working, range: SignalRange, { points }: RunEvaluation): void {
  const pointMean = (nominalPercent: number, symbol: string, what: string): boolean => {
    const point = points.find((one) => one.nominalPercent === nominalPercent);
    if (point === undefined) return false;
    const given: Record<string, Given> = {};
    if (point.up !== null) given['e_up'] = percent(point.up);
    if (point.down !== null) given['e_down'] = percent(point.down);
    work.step({ what, symbol, formula: meanOf(Object.keys(given)), given, unit: '%', source: SOURCE });
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
      source: SOURCE,
    });
}

interface Pair {
  readonly up: JudgedReading;
  readonly down: JudgedReading;
}

const width = ({ up, down }: Pair): number => Math.abs(down.errorPercentSpan - up.errorPercentSpan);

function widestPair({ readings }: RunEvaluation): Pair | null {
  let widest: Pair | null = null;
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

/** The one of several for which a figure is largest; undefined where none has it. */
function largestBy<T>(all: readonly T[], figure: (one: T) => number | null): T | undefined {
  let found: { one: T; size: number } | undefined;
  for (const one of all) {
    const size = figure(one);
    if (size !== null && (found === undefined || size > found.size)) found = { one, size };
  }
  return found?.one;
}

const gapOf = ({ up, down }: PointMeans): number | null =>
  up === null || down === null ? null : Math.abs(down - up);

function hysteresisSteps(work: Working, evaluation: RunEvaluation): void {
  const pair = widestPair(evaluation);
  if (pair !== null)
    work.step({
      what: `Hysteresis: largest difference in one cycle, at ${pair.up.nominalPercent} % in cycle ${pair.up.cycle}`,
      symbol: 'h',
      formula: 'abs(e_falling - e_rising)',
      given: {
        e_falling: percent(pair.down.errorPercentSpan),
        e_rising: percent(pair.up.errorPercentSpan),
      },
      unit: '%',
      source: `${SOURCE}; dead band not subtracted`,
    });
  const isRepeated = evaluation.readings.some(({ cycle }) => cycle !== evaluation.readings[0]?.cycle);
  const point = largestBy(evaluation.points, gapOf);
  if (!isRepeated || point === undefined) return;
  work.step({
    what: `Hysteresis of the means over the cycles, largest at ${point.nominalPercent} %`,
    symbol: 'h_m',
    formula: 'abs(m_falling - m_rising)',
    given: { m_falling: percent(point.down ?? 0), m_rising: percent(point.up ?? 0) },
    unit: '%',
    source: `${SOURCE}; dead band not subtracted`,
  });
}

interface Climb {
  readonly nominalPercent: number;
  readonly way: 'rising' | 'falling';
  readonly errors: readonly number[];
}

const climbsOf = ({ points, readings }: RunEvaluation): readonly Climb[] =>
  points.flatMap(({ nominalPercent }) =>
    (['up', 'down'] as const).map((direction): Climb => ({
      nominalPercent,
      way: direction === 'up' ? 'rising' : 'falling',
      errors: readings
        .filter((one) => one.nominalPercent === nominalPercent && one.direction === direction)
        .map(({ errorPercentSpan }) => errorPercentSpan),
    })),
  );

/** Sums longer than this are no longer written out. */
const LONGEST_SUM = 24;

/** A sum of figures: written out, or taken over where it would fill the page. */
function sumStep(
  work: Working,
  what: string,
  symbol: string,
  terms: { formula: (index: number) => string; given: (index: number) => Record<string, Given> },
  values: readonly number[],
  unit: string,
): void {
  if (values.length > LONGEST_SUM) {
    const sum = values.reduce((total, value) => total + value, 0);
    work.step({ what, symbol, formula: 'S', given: { S: { value: sum, unit } }, unit, source: SUM });
    return;
  }
  const given = Object.assign({}, ...values.map((_, index) => terms.given(index + 1))) as Record<
    string,
    Given
  >;
  const formula = values.map((_, index) => terms.formula(index + 1)).join(' + ');
  work.step({ what, symbol, formula, given, unit, source: SUM });
}

const SUM = 'a sum over the readings';

function spreadSteps(work: Working, evaluation: RunEvaluation): void {
  const climbs = climbsOf(evaluation);
  const largest = largestBy(climbs, ({ errors }) =>
    errors.length === 0 ? null : Math.abs(errors.reduce((sum, e) => sum + e, 0) / errors.length),
  );
  if (largest !== undefined) {
    const names = largest.errors.map((_, index) => `e_${index + 1}`);
    work.step({
      what: `Maximum measured error: the largest mean of one direction, at ${largest.nominalPercent} % ${largest.way}`,
      symbol: 'e_max',
      formula: meanOf(names),
      given: Object.fromEntries(names.map((name, index) => [name, percent(largest.errors[index] ?? 0)])),
      unit: '%',
      source: SOURCE,
    });
  }
  const spread = ({ errors }: Climb): number | null =>
    errors.length > 1 ? Math.max(...errors) - Math.min(...errors) : null;
  const widest = largestBy(climbs, spread);
  if (widest === undefined) return;
  work.step({
    what: `Non-repeatability: largest spread over the cycles, at ${widest.nominalPercent} % ${widest.way}`,
    symbol: 'r_p',
    formula: 'e_highest - e_lowest',
    given: {
      e_highest: percent(Math.max(...widest.errors)),
      e_lowest: percent(Math.min(...widest.errors)),
    },
    unit: '%',
    source: SOURCE,
  });
}

function linearitySteps(work: Working, { points, linearityPercentSpan }: RunEvaluation): void {
  if (linearityPercentSpan === null) return;
  const { x, y } = pointColumns(points);
  const last = x.length - 1;
  const nominal = (index: number): string =>
    `${points.find(({ share, mean }) => share === x[index] && mean === y[index])?.nominalPercent ?? ''} %`;
  /** Share and mean error of a point under names of its own. */
  const at = (name: string, index: number): Record<string, Given> => ({
    [`s_${name}`]: plain(x[index] ?? 0),
    [`m_${name}`]: percent(y[index] ?? 0),
  });
  const ends = { ...at('first', 0), ...at('last', last) };
  const straight = (what: string, symbol: string) =>
    work.step({
      what: `${what}: all points lie on the line`,
      symbol,
      formula: '0',
      unit: '%',
      source: SOURCE,
    });

  const terminal = terminalDeviation(x, y);
  work.step({
    what: 'Terminal line: its slope from the first point to the last',
    symbol: 'b_t',
    formula: '(m_last - m_first) / (s_last - s_first)',
    given: ends,
    unit: '%',
    source: SOURCE,
  });
  const [far = 0] = terminal.points;
  if (terminal.largest === 0) straight('Terminal linearity', 'l_t');
  else
    work.step({
      what: `Terminal linearity: largest deviation from that line, at ${nominal(far)}`,
      symbol: 'l_t',
      formula: 'abs(m_i - m_first - b_t * (s_i - s_first))',
      given: { ...ends, ...at('i', far) },
      unit: '%',
      source: SOURCE,
    });

  const based = zeroBasedDeviation(x, y);
  const [above = 0, below = 0] = based.points;
  if (based.largest === 0) straight('Zero-based linearity', 'l_z');
  else {
    const given = { ...at('first', 0), ...at('i', above), ...at('j', below) };
    work.step({
      what: `Best line through the first point: it leaves the points at ${nominal(above)} and ${nominal(below)} equally far above and below`,
      symbol: 'b_z',
      formula: '(m_i - m_first + m_j - m_first) / (s_i - s_first + s_j - s_first)',
      given,
      unit: '%',
      source: SOURCE,
    });
    work.step({
      what: 'Zero-based linearity: the deviation that is left',
      symbol: 'l_z',
      formula: 'abs(m_i - m_first - b_z * (s_i - s_first))',
      given,
      unit: '%',
      source: SOURCE,
    });
  }

  const free = independentDeviation(x, y);
  const [from = 0, to = 0, across = 0] = free.points;
  if (free.largest === 0) straight('Independent linearity', 'l_i');
  else {
    const given = { ...at('i', from), ...at('j', to), ...at('k', across) };
    work.step({
      what: `Narrowest strip around all points: along those at ${nominal(from)} and ${nominal(to)}`,
      symbol: 'b_i',
      formula: '(m_j - m_i) / (s_j - s_i)',
      given,
      unit: '%',
      source: SOURCE,
    });
    work.step({
      what: `Independent linearity: half its height, which reaches to the point at ${nominal(across)}`,
      symbol: 'l_i',
      formula: 'abs(m_k - m_i - b_i * (s_k - s_i)) / 2',
      given,
      unit: '%',
      source: SOURCE,
    });
  }
}

function leastSquaresSteps(work: Working, range: SignalRange, evaluation: RunEvaluation): void {
  if (evaluation.leastSquares !== null)
    fitSteps(
      work,
      range,
      'Least squares over all readings',
      '',
      evaluation.readings.map(({ share }) => share),
      evaluation.readings.map(({ errorPercentSpan }) => errorPercentSpan),
    );
  const { x, y } = pointColumns(evaluation.points);
  if (evaluation.leastSquaresOfMeans !== null)
    fitSteps(work, range, 'Least squares over the means of the points', 'm', x, y);
}

function fitSteps(
  work: Working,
  range: SignalRange,
  of: string,
  suffix: string,
  shares: readonly number[],
  errors: readonly number[],
): void {
  const name = (symbol: string) => (suffix === '' ? symbol : `${symbol}_${suffix}`);
  const n = shares.length;
  const [meanS, meanE] = [name('s_mean'), name('e_mean')];
  const [sums, sume] = [name('sum_s'), name('sum_e')];
  const share = (index: number) => ({ [`s_${index}`]: plain(shares[index - 1] ?? 0) });
  const error = (index: number) => ({ [`e_${index}`]: percent(errors[index - 1] ?? 0) });
  const both = (index: number) => ({ ...share(index), ...error(index) });
  sumStep(
    work,
    `${of}: sum of the ideal outputs as shares of span`,
    sums,
    { formula: (i) => `s_${i}`, given: share },
    shares,
    '',
  );
  const s = work.step({
    what: 'Their mean',
    symbol: meanS,
    formula: `${sums} / n`,
    given: { n: plain(n) },
    unit: '',
    source: SUM,
  });
  sumStep(work, `${of}: sum of the errors`, sume, { formula: (i) => `e_${i}`, given: error }, errors, '%');
  const e = work.step({
    what: 'Their mean',
    symbol: meanE,
    formula: `${sume} / n`,
    given: { n: plain(n) },
    unit: '%',
    source: SUM,
  });
  const FIT = 'ordinary least squares, common practice';
  sumStep(
    work,
    'Squares of the shares about their mean',
    name('S_ss'),
    { formula: (i) => `(s_${i} - ${meanS})^2`, given: share },
    shares.map((value) => (value - s) ** 2),
    '',
  );
  sumStep(
    work,
    'Products of shares and errors about their means',
    name('S_se'),
    { formula: (i) => `(s_${i} - ${meanS}) * (e_${i} - ${meanE})`, given: both },
    shares.map((value, index) => (value - s) * ((errors[index] ?? 0) - e)),
    '%',
  );
  work.step({
    what: `${of}: rise of the line over the whole span`,
    symbol: name('b'),
    formula: `${name('S_se')} / ${name('S_ss')}`,
    unit: '%',
    source: FIT,
  });
  work.step({
    what: `${of}: zero error`,
    symbol: name('z_ls'),
    formula: `${meanE} - ${name('b')} * ${meanS}`,
    unit: '%',
    source: FIT,
  });
  work.step({
    what: `${of}: span error`,
    symbol: name('p_ls'),
    formula: range.outputHigh > range.outputLow ? name('b') : `-${name('b')}`,
    unit: '%',
    source: FIT,
  });
}
