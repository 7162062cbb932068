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
import { checkRange, inverseShare, share, transferOf, type SignalRange, type Transfer } from '../signal';
import { leastSquares, linearityOf, type Line, type Linearity } from './linearity';
import { hysteresisOfCycles, spreadOf, type PointMeans } from './points';
import { checkTolerance, limiter, type Tolerance } from './tolerance';
import {
  checkRule,
  checkUncertainty,
  Decider,
  hasUncertainty,
  noiseBound,
  SIMPLE_ACCEPTANCE,
  worstVerdict,
  worseVerdict,
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

/**
 * Judges readings one by one; what does not hang on a reading is computed once, and kept here: ranges and tolerances come in
 * many shapes, which cost more at each reading than the reckoning.
 */
class Judge {
  private readonly decider: Decider;
  private readonly transfer: Transfer;
  private readonly isOfOutput: boolean;
  private readonly lrv: number;
  private readonly outputLow: number;
  private readonly inputSpan: number;
  private readonly outputSpan: number;
  private readonly limitAt: (applied: number, expected: number) => number;
  private readonly noiseAt: (applied: number, output: number, limit: number) => number;

  constructor(range: SignalRange, tolerance: Tolerance, rule: DecisionRule) {
    this.decider = new Decider(range, tolerance, rule);
    this.transfer = transferOf(range);
    this.isOfOutput = tolerance.domain === 'output';
    this.lrv = range.lrv;
    this.outputLow = range.outputLow;
    this.inputSpan = range.urv - range.lrv;
    this.outputSpan = range.outputHigh - range.outputLow;
    this.limitAt = limiter(range, tolerance);
    this.noiseAt = noiseBound(range, tolerance);
  }

  private shareAt(applied: number): number {
    return share(this.transfer, (applied - this.lrv) / this.inputSpan);
  }

  /** The error referred to the input. */
  private errorInput(applied: number, output: number): number {
    const stands = inverseShare(this.transfer, (output - this.outputLow) / this.outputSpan);
    return this.lrv + this.inputSpan * stands - applied;
  }

  private decideAt(
    { applied, output, uncertainty = 0 }: RunReading,
    error: number,
    limit: number,
    noise: number,
  ): Verdict {
    // Nothing is kept free of an uncertainty, and most readings lie well off what divides them.
    const plain = uncertainty === 0 ? this.decider.decidePlainly(Math.abs(error), limit, noise) : null;
    return plain ?? this.decider.decide({ applied, output, error, limit, uncertainty }, noise);
  }

  verdict(reading: RunReading): Verdict {
    const { applied, output } = reading;
    const expected = this.outputLow + this.outputSpan * this.shareAt(applied);
    const error = this.isOfOutput ? output - expected : this.errorInput(applied, output);
    const limit = this.limitAt(applied, expected);
    return this.decideAt(reading, error, limit, this.noiseAt(applied, output, limit));
  }

  judge(reading: RunReading): JudgedReading {
    const { cycle, direction, nominalPercent, applied, output, uncertainty } = reading;
    const s = this.shareAt(applied);
    const expected = this.outputLow + this.outputSpan * s;
    const errorOutput = output - expected;
    const errorInput = this.errorInput(applied, output);
    const limit = this.limitAt(applied, expected);
    const error = this.isOfOutput ? errorOutput : errorInput;
    const noise = this.noiseAt(applied, output, limit);
    const found: { -readonly [K in keyof JudgedReading]: JudgedReading[K] } = {
      cycle,
      direction,
      nominalPercent,
      applied,
      output,
      expected,
      share: s,
      errorOutput,
      errorPercentSpan: (errorOutput / Math.abs(this.outputSpan)) * 100,
      errorInput,
      limit,
      errorOfLimit: limit > 0 ? error / limit : Math.abs(error) <= noise ? 0 : null,
      verdict: this.decideAt(reading, error, limit, noise),
    };
    if (uncertainty !== undefined) found.uncertainty = uncertainty;
    return found;
  }
}

/** Refuses a reading that is no number, or lacks the uncertainty that it is to be judged with. */
function checkReading({ applied, output, uncertainty }: RunReading, rule: DecisionRule): void {
  checkUncertainty(rule, uncertainty);
  requireFinite('applied value', applied, 'applied');
  requireFinite('reading', output, 'output');
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
  checkRule(rule);
  return within('reading', () => {
    checkReading(reading, rule);
    return new Judge(range, tolerance, rule).judge(reading);
  });
}

/** What has to be so before anything of a run is judged. */
function checkRun(
  range: SignalRange,
  tolerance: Tolerance,
  readings: readonly RunReading[],
  rule: DecisionRule,
): void {
  checkRange(range);
  checkTolerance(tolerance);
  if (readings.length > MOST_READINGS)
    throw new CoreError(
      { code: 'too-many', name: 'Readings', count: readings.length, most: MOST_READINGS },
      'readings',
    );
  checkRule(rule);
  for (let place = 0; place < readings.length; place += 1) {
    const reading = readings[place] as RunReading;
    const isWhole = Number.isFinite(reading.applied) && Number.isFinite(reading.output);
    if (!isWhole || !hasUncertainty(rule, reading.uncertainty))
      within(`readings.${place}`, () => checkReading(reading, rule));
  }
}

/**
 * The worst verdict of a run, complete or not, where its figures are not asked for; null of no readings.
 * @throws CoreError as `evaluateRun`
 */
export function verdictOfRun(
  range: SignalRange,
  tolerance: Tolerance,
  readings: readonly RunReading[],
  rule: DecisionRule = SIMPLE_ACCEPTANCE,
): Verdict | null {
  checkRun(range, tolerance, readings, rule);
  const judge = new Judge(range, tolerance, rule);
  let worst: Verdict | null = null;
  for (const reading of readings) worst = worseVerdict(worst, judge.verdict(reading));
  return worst;
}

/**
 * Evaluates a run, complete or not: its verdicts and all its figures.
 * @throws CoreError `not-finite`, `zero-span`, `not-positive`, `out-of-bounds`, `too-many`, `missing`
 */
export function evaluateRun(
  range: SignalRange,
  tolerance: Tolerance,
  readings: readonly RunReading[],
  rule: DecisionRule = SIMPLE_ACCEPTANCE,
): RunEvaluation {
  checkRun(range, tolerance, readings, rule);
  const judge = new Judge(range, tolerance, rule);
  const judged = readings.map((reading) => judge.judge(reading));
  const { points, hysteresisOfMeans, nonRepeatability } = spreadOf(judged);
  if (points.length > MOST_POINTS)
    throw new CoreError(
      { code: 'too-many', name: 'Different points', count: points.length, most: MOST_POINTS },
      'readings',
    );
  const direction = Math.sign(range.outputHigh - range.outputLow);
  const zero = points.find((point) => point.nominalPercent === 0);
  const full = points.find((point) => point.nominalPercent === 100);
  const means = pointColumns(points);
  const hasEnds = zero !== undefined && full !== undefined;
  const linearity =
    points.length > 2
      ? linearityOf(means.x, means.y, { zero: zero !== undefined, full: full !== undefined })
      : null;
  const hysteresis = hysteresisOfCycles(judged);
  const missing: Missing[] = [];
  if (judged.length === 0) missing.push(MISSING.reading);
  if (zero === undefined) missing.push(MISSING.zero);
  if (!hasEnds) missing.push(MISSING.span);
  if (hysteresis === null) missing.push(MISSING.hysteresis);
  if (nonRepeatability === null) missing.push(MISSING.repeatability);
  if (linearity === null) missing.push(MISSING.linearity);
  const { worst, largest, smallest } = extremesOf(judged);
  return {
    readings: judged,
    points,
    worst,
    largestErrorPercentSpan: largest,
    smallestErrorPercentSpan: smallest,
    maximumOfMeansPercentSpan: maximumOfMeans(points),
    zeroErrorPercentSpan: zero?.mean ?? null,
    spanErrorPercentSpan: hasEnds ? direction * (full.mean - zero.mean) : null,
    leastSquares: zeroAndSpan(
      leastSquares(
        judged.map((reading) => reading.share),
        judged.map((reading) => reading.errorPercentSpan),
      ),
      direction,
    ),
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

function extremesOf(readings: readonly JudgedReading[]): {
  worst: JudgedReading | null;
  largest: number | null;
  smallest: number | null;
} {
  let worst: JudgedReading | null = null;
  let largest: number | null = null;
  let smallest: number | null = null;
  for (const reading of readings) {
    const error = reading.errorPercentSpan;
    if (worst === null || Math.abs(error) > Math.abs(worst.errorPercentSpan)) worst = reading;
    if (largest === null || error > largest) largest = error;
    if (smallest === null || error < smallest) smallest = error;
  }
  return { worst, largest, smallest };
}

function maximumOfMeans(points: readonly PointMeans[]): number | null {
  let furthest: number | null = null;
  for (const { up, down } of points) furthest = furtherOf(furtherOf(furthest, up), down);
  return furthest;
}
