/**
 * What a run of readings says about an instrument.
 *
 * Errors are reading minus ideal at the value applied, never at the nominal one. Figures follow IEC 61298-2 and
 * ISA-51.1 (both from memory): hysteresis is the largest difference between falling and rising error at one point
 * inside one cycle, dead band not subtracted; zero and span error come from the means at 0 and 100 %, or from least
 * squares; linearity is that of the point means and always has its kind. A figure that the readings do not support
 * is null, and `missing` says why. Means and figures are in per cent of the absolute output span.
 */
import { CoreError, requireFinite, within } from '../errors';
import type { Direction } from '../procedure';
import { checkRange, inverseShare, share, transferOf, type SignalRange } from '../signal';
import { leastSquares, linearityOf, type Line, type Linearity } from './linearity';
import { hysteresisOfCycles, spreadOf, type PointMeans } from './points';
import { checkTolerance, limitAt, type Tolerance } from './tolerance';
import {
  checkRule,
  decide,
  roundingNoise,
  SIMPLE_ACCEPTANCE,
  worstVerdict,
  type DecisionRule,
  type Verdict,
} from './verdict';

export interface RunReading {
  /** Which climb of the run, from 1. */
  readonly cycle: number;
  readonly direction: Direction;
  /** Nominal input, per cent of the input span; groups the readings of one point. */
  readonly nominalPercent: number;
  /** Input actually read at the reference, in the input unit. */
  readonly applied: number;
  /** Output read at the meter, in the output unit. */
  readonly output: number;
  /** Expanded uncertainty of the error, in the unit of the tolerance's domain; needed by a rule with a guard band. */
  readonly uncertainty?: number;
}

export interface JudgedReading extends RunReading {
  /** Ideal output at the applied value, in the output unit. */
  readonly expected: number;
  /** The same as a share of the output span. */
  readonly share: number;
  /** Error in the output unit. */
  readonly errorOutput: number;
  /** Error in per cent of the absolute output span. */
  readonly errorPercentSpan: number;
  /** Error referred to the input, in the input unit: the input that the output stands for, less the applied one. */
  readonly errorInput: number;
  /** Limit here, in the unit of the tolerance's domain. */
  readonly limit: number;
  /** Error as a part of the limit; -1 and +1 are the walls of the corridor. Null where the limit is zero and the error is not. */
  readonly errorOfLimit: number | null;
  readonly verdict: Verdict;
}

/** A figure that the readings do not support. */
export interface Missing {
  readonly figure: 'reading' | 'zero-error' | 'span-error' | 'hysteresis' | 'repeatability' | 'linearity';
  readonly why: string;
}

export interface RunEvaluation {
  readonly readings: readonly JudgedReading[];
  /** Mean errors at each point, rising and falling. */
  readonly points: readonly PointMeans[];
  /** The single reading with the largest error either way. */
  readonly worst: JudgedReading | null;
  /** Algebraically largest and smallest error of all readings (inaccuracy in the sense of IEC 61298-2). */
  readonly largestErrorPercentSpan: number | null;
  readonly smallestErrorPercentSpan: number | null;
  /** The direction mean with the largest error, signed (maximum measured error, IEC 61298-2). */
  readonly maximumOfMeansPercentSpan: number | null;
  /** Mean error at 0 %. */
  readonly zeroErrorPercentSpan: number | null;
  /** (Actual span - ideal span) / ideal span from the means at 0 and 100 %. */
  readonly spanErrorPercentSpan: number | null;
  /** The same two from least squares over all readings. */
  readonly leastSquares: ZeroAndSpan | null;
  /** And over the point means. */
  readonly leastSquaresOfMeans: ZeroAndSpan | null;
  /** Largest falling-against-rising difference inside one cycle, never negative. */
  readonly hysteresisPercentSpan: number | null;
  /** The same of the means over the cycles. */
  readonly hysteresisOfMeansPercentSpan: number | null;
  /** Largest spread over the cycles at one point in one direction. */
  readonly nonRepeatabilityPercentSpan: number | null;
  readonly linearityPercentSpan: Linearity | null;
  /** The worst verdict of the readings that there are; null of none. */
  readonly verdict: Verdict | null;
  readonly missing: readonly Missing[];
  /** What the verdicts rest on: the rule of decision, and the domain in which error and limit were compared. */
  readonly rule: DecisionRule;
  readonly domain: Tolerance['domain'];
}

export interface ZeroAndSpan {
  readonly zeroErrorPercentSpan: number;
  readonly spanErrorPercentSpan: number;
}

const MOST_READINGS = 10000;
/** As many as a procedure may plan; the lines through the points cost their square. */
const MOST_POINTS = 1000;

function judgeWith(
  range: SignalRange,
  tolerance: Tolerance,
  rule: DecisionRule,
): (reading: RunReading) => JudgedReading {
  const transfer = transferOf(range);
  const inputSpan = range.urv - range.lrv;
  const outputSpan = range.outputHigh - range.outputLow;
  const size = Math.abs(outputSpan);
  return (reading) => {
    const { cycle, direction, nominalPercent, applied, output, uncertainty } = reading;
    requireFinite('applied value', applied, 'applied');
    requireFinite('reading', output, 'output');
    const s = share(transfer, (applied - range.lrv) / inputSpan);
    const expected = range.outputLow + outputSpan * s;
    const errorOutput = output - expected;
    const standsFor = range.lrv + inputSpan * inverseShare(transfer, (output - range.outputLow) / outputSpan);
    const errorInput = standsFor - applied;
    const limit = limitAt(range, tolerance, applied, expected);
    const error = tolerance.domain === 'output' ? errorOutput : errorInput;
    const judged = { applied, output, error, limit, uncertainty: uncertainty ?? 0 };
    const noise = roundingNoise(range, tolerance, judged);
    const found: JudgedReading = {
      cycle,
      direction,
      nominalPercent,
      applied,
      output,
      expected,
      share: s,
      errorOutput,
      errorPercentSpan: (errorOutput / size) * 100,
      errorInput,
      limit,
      errorOfLimit: limit > 0 ? error / limit : Math.abs(error) <= noise ? 0 : null,
      verdict: decide(range, tolerance, rule, judged, noise),
    };
    return uncertainty === undefined ? found : { ...found, uncertainty };
  };
}

/** Judges one of many readings; what is wrong with it is said at its place. */
function judgedAt(
  judge: (reading: RunReading) => JudgedReading,
  reading: RunReading,
  place: number,
): JudgedReading {
  if (Number.isFinite(reading.applied) && Number.isFinite(reading.output)) return judge(reading);
  return within(`readings.${place}`, () => judge(reading));
}

const zeroAndSpan = (line: Line | null, direction: number): ZeroAndSpan | null =>
  line && { zeroErrorPercentSpan: line.atZero, spanErrorPercentSpan: direction * line.overSpan };

/** Of two errors, either of which may be missing, the one further from zero. */
const furtherOf = (a: number | null, b: number | null): number | null =>
  b !== null && (a === null || Math.abs(b) > Math.abs(a)) ? b : a;

/** The means of the points as two columns, in rising order of the ideal output. */
export function pointColumns(points: readonly PointMeans[]): { x: number[]; y: number[] } {
  const rising = [...points].sort(byShare);
  return { x: rising.map(({ share }) => share), y: rising.map(({ mean }) => mean) };
}

const byShare = (a: PointMeans, b: PointMeans): number => a.share - b.share;

const MISSING = {
  reading: { figure: 'reading', why: 'There is no reading yet.' },
  zero: { figure: 'zero-error', why: 'Zero error needs a reading at 0 %.' },
  span: { figure: 'span-error', why: 'Span error needs readings at 0 % and 100 %.' },
  hysteresis: { figure: 'hysteresis', why: 'Hysteresis needs one point read both rising and falling.' },
  repeatability: { figure: 'repeatability', why: 'Repeatability needs more than one cycle.' },
  linearity: { figure: 'linearity', why: 'Linearity needs three points that differ.' },
} as const satisfies Record<string, Missing>;

/**
 * Judges one reading by itself.
 * @throws CoreError as `evaluateRun`, at `reading.applied`, `reading.output` or `reading.uncertainty`
 */
export function judgeReading(
  range: SignalRange,
  tolerance: Tolerance,
  reading: RunReading,
  rule: DecisionRule = SIMPLE_ACCEPTANCE,
): JudgedReading {
  checkRange(range);
  checkTolerance(tolerance);
  checkRule(rule, [reading.uncertainty], () => 'reading.uncertainty');
  return within('reading', () => judgeWith(range, tolerance, rule)(reading));
}

/**
 * Evaluates a run, complete or not.
 * @throws CoreError `not-finite`, `zero-span`, `not-positive`, `out-of-bounds`, `too-many`, `missing`
 */
export function evaluateRun(
  range: SignalRange,
  tolerance: Tolerance,
  readings: readonly RunReading[],
  rule: DecisionRule = SIMPLE_ACCEPTANCE,
): RunEvaluation {
  checkRange(range);
  checkTolerance(tolerance);
  if (readings.length > MOST_READINGS)
    throw new CoreError(
      { code: 'too-many', name: 'Readings', count: readings.length, most: MOST_READINGS },
      'readings',
    );
  checkRule(
    rule,
    readings.map(({ uncertainty }) => uncertainty),
  );
  const judge = judgeWith(range, tolerance, rule);
  const judged = readings.map((reading, place) => judgedAt(judge, reading, place));
  const { points, hysteresisOfMeans, nonRepeatability } = spreadOf(judged);
  if (points.length > MOST_POINTS)
    throw new CoreError(
      { code: 'too-many', name: 'Different points', count: points.length, most: MOST_POINTS },
      'readings',
    );
  const direction = Math.sign(range.outputHigh - range.outputLow);
  const zero = points.find((point) => point.nominalPercent === 0);
  const full = points.find((point) => point.nominalPercent === 100);

  let worst: JudgedReading | null = null;
  let largest = -Infinity;
  let smallest = Infinity;
  const shares: number[] = [];
  const errors: number[] = [];
  for (const reading of judged) {
    const error = reading.errorPercentSpan;
    shares.push(reading.share);
    errors.push(error);
    if (worst === null || Math.abs(error) > Math.abs(worst.errorPercentSpan)) worst = reading;
    largest = Math.max(largest, error);
    smallest = Math.min(smallest, error);
  }
  let maximumOfMeans: number | null = null;
  for (const { up, down } of points) maximumOfMeans = furtherOf(furtherOf(maximumOfMeans, up), down);

  const means = pointColumns(points);
  const hasEnds = zero !== undefined && full !== undefined;
  const linearity =
    points.length > 2
      ? linearityOf(means.x, means.y, {
          zero: zero !== undefined,
          full: full !== undefined,
        })
      : null;
  const hysteresis = hysteresisOfCycles(judged);
  const missing: Missing[] = [];
  if (judged.length === 0) missing.push(MISSING.reading);
  if (zero === undefined) missing.push(MISSING.zero);
  if (!hasEnds) missing.push(MISSING.span);
  if (hysteresis === null) missing.push(MISSING.hysteresis);
  if (nonRepeatability === null) missing.push(MISSING.repeatability);
  if (linearity === null) missing.push(MISSING.linearity);
  return {
    readings: judged,
    points,
    worst,
    largestErrorPercentSpan: judged.length === 0 ? null : largest,
    smallestErrorPercentSpan: judged.length === 0 ? null : smallest,
    maximumOfMeansPercentSpan: maximumOfMeans,
    zeroErrorPercentSpan: zero?.mean ?? null,
    spanErrorPercentSpan: hasEnds ? direction * (full.mean - zero.mean) : null,
    leastSquares: zeroAndSpan(leastSquares(shares, errors), direction),
    leastSquaresOfMeans: zeroAndSpan(leastSquares(means.x, means.y), direction),
    hysteresisPercentSpan: hysteresis,
    hysteresisOfMeansPercentSpan: hysteresisOfMeans,
    nonRepeatabilityPercentSpan: nonRepeatability,
    linearityPercentSpan: linearity,
    verdict: worstVerdict(judged.map((reading) => reading.verdict)),
    missing,
    rule,
    domain: tolerance.domain,
  };
}
