/** The working of a run's figures, each from the errors that it rests on; only those that the run gives. */
import type { SignalRange } from '../signal';
import { Working, type Given, type Step } from '../working';
import { pointColumns, type JudgedReading, type RunEvaluation } from './evaluate';
import { independentDeviation, terminalDeviation, zeroBasedDeviation } from './linearity';
import { pairsInCycle, type PointMeans } from './points';

const SOURCE = 'IEC 61298-2 and ISA-51.1, from memory';

const percent = (value: number): Given => ({ value, unit: '%' });
const plain = (value: number): Given => ({ value, unit: '' });

const meanOf = (names: readonly string[]): string =>
  names.length === 1 ? (names[0] ?? '') : `(${names.join(' + ')}) / ${names.length}`;

/** The mean of errors: written out, or from their sum where it would fill the page. */
function meanStep(
  work: Working,
  step: Pick<Step, 'what' | 'symbol' | 'source'>,
  errors: readonly number[],
): number {
  const isLong = errors.length > LONGEST_SUM;
  const sum = errors.reduce((total, error) => total + error, 0);
  const given = isLong
    ? { S: percent(sum), n: plain(errors.length) }
    : Object.fromEntries(errors.map((error, index) => [`e_${index + 1}`, percent(error)]));
  return work.step({ ...step, formula: isLong ? 'S / n' : meanOf(Object.keys(given)), given, unit: '%' });
}

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
  for (const [up, down] of pairsInCycle(readings))
    if (widest === null || width({ up, down }) > width(widest)) widest = { up, down };
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

function climbsOf({ points, readings }: RunEvaluation): readonly Climb[] {
  const errors = new Map<string, number[]>();
  for (const { nominalPercent, direction, errorPercentSpan } of readings) {
    const key = `${nominalPercent} ${direction}`;
    const known = errors.get(key);
    if (known === undefined) errors.set(key, [errorPercentSpan]);
    else known.push(errorPercentSpan);
  }
  return points.flatMap(({ nominalPercent }) =>
    (['up', 'down'] as const).map((direction): Climb => ({
      nominalPercent,
      way: direction === 'up' ? 'rising' : 'falling',
      errors: errors.get(`${nominalPercent} ${direction}`) ?? [],
    })),
  );
}

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
    const what = `Maximum measured error: the largest mean of one direction, at ${largest.nominalPercent} % ${largest.way}`;
    meanStep(work, { what, symbol: 'e_max', source: SOURCE }, largest.errors);
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

/** The points as columns, and how steps name one of them. */
interface LinePoints {
  readonly x: readonly number[];
  readonly y: readonly number[];
  readonly nominal: (index: number) => string;
  /** Share and mean error of a point under names of its own. */
  readonly at: (name: string, index: number) => Record<string, Given>;
}

const lineStep = (
  work: Working,
  step: Pick<Step, 'what' | 'symbol' | 'formula'>,
  given: Record<string, Given>,
) => work.step({ ...step, given, unit: '%', source: SOURCE });

const straightStep = (work: Working, kind: string, symbol: string) =>
  lineStep(work, { what: `${kind}: all points lie on the line`, symbol, formula: '0' }, {});

function linearitySteps(work: Working, { points, linearityPercentSpan }: RunEvaluation): void {
  if (linearityPercentSpan === null) return;
  const { x, y } = pointColumns(points);
  const line: LinePoints = {
    x,
    y,
    nominal: (index) =>
      `${points.find(({ share, mean }) => share === x[index] && mean === y[index])?.nominalPercent ?? ''} %`,
    at: (name, index) => ({ [`s_${name}`]: plain(x[index] ?? 0), [`m_${name}`]: percent(y[index] ?? 0) }),
  };
  if (linearityPercentSpan.terminal !== null) terminalSteps(work, line);
  if (linearityPercentSpan.zeroBased !== null) zeroBasedSteps(work, line);
  independentSteps(work, line);
}

function terminalSteps(work: Working, { x, y, at, nominal }: LinePoints): void {
  const ends = { ...at('first', 0), ...at('last', x.length - 1) };
  const terminal = terminalDeviation(x, y);
  const what = 'Terminal line: its slope from the first point to the last';
  lineStep(work, { what, symbol: 'b_t', formula: '(m_last - m_first) / (s_last - s_first)' }, ends);
  const [far = 0] = terminal.points;
  if (terminal.largest === 0) straightStep(work, 'Terminal linearity', 'l_t');
  else
    lineStep(
      work,
      {
        what: `Terminal linearity: largest deviation from that line, at ${nominal(far)}`,
        symbol: 'l_t',
        formula: 'abs(m_i - m_first - b_t * (s_i - s_first))',
      },
      { ...ends, ...at('i', far) },
    );
}

function zeroBasedSteps(work: Working, { x, y, at, nominal }: LinePoints): void {
  const based = zeroBasedDeviation(x, y);
  if (based.largest === 0) {
    straightStep(work, 'Zero-based linearity', 'l_z');
    return;
  }
  const [above = 0, below = 0] = based.points;
  const given = { ...at('first', 0), ...at('i', above), ...at('j', below) };
  lineStep(
    work,
    {
      what: `Best line through the first point: it leaves the points at ${nominal(above)} and ${nominal(below)} equally far above and below`,
      symbol: 'b_z',
      formula: '(m_i - m_first + m_j - m_first) / (s_i - s_first + s_j - s_first)',
    },
    given,
  );
  lineStep(
    work,
    {
      what: 'Zero-based linearity: the deviation that is left',
      symbol: 'l_z',
      formula: 'abs(m_i - m_first - b_z * (s_i - s_first))',
    },
    given,
  );
}

function independentSteps(work: Working, { x, y, at, nominal }: LinePoints): void {
  const free = independentDeviation(x, y);
  if (free.largest === 0) {
    straightStep(work, 'Independent linearity', 'l_i');
    return;
  }
  const [from = 0, to = 0, across = 0] = free.points;
  const given = { ...at('i', from), ...at('j', to), ...at('k', across) };
  lineStep(
    work,
    {
      what: `Narrowest strip around all points: along those at ${nominal(from)} and ${nominal(to)}`,
      symbol: 'b_i',
      formula: '(m_j - m_i) / (s_j - s_i)',
    },
    given,
  );
  lineStep(
    work,
    {
      what: `Independent linearity: half its height, which reaches to the point at ${nominal(across)}`,
      symbol: 'l_i',
      formula: 'abs(m_k - m_i - b_i * (s_k - s_i)) / 2',
    },
    given,
  );
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
