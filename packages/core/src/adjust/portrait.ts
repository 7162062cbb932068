/**
 * What the errors of a run are made of: zero, gain, bow, hysteresis and scatter, each with its uncertainty.
 *
 * Zero and gain are ordinary least squares over all readings. The bow is what a parabola that is zero at both ends adds to
 * that line, hysteresis the largest difference of falling and rising inside one cycle, scatter the standard deviation of
 * readings that were repeated or, without repeats, of what a parabola for each direction leaves (all common practice). An
 * uncertainty combines the scatter with what is uncertain of standard and meter, which is one and the same for all readings of
 * a point (JCGM 100:2008, 5.2); it is expanded for about 95 % with Student's t (G.4, effective degrees truncated; from memory).
 */
import type { JudgedReading, RunEvaluation } from '../run';
import type { SignalRange } from '../signal';
import { coverageFactor } from '../uncertainty';

/** Per cent of span. */
export interface Estimate {
  readonly value: number;
  /** Expanded, about 95 %; null where the readings do not tell it. */
  readonly uncertainty: number | null;
}

export interface Portrait {
  /** Error of the line through all readings at the low end of the output; null where all stand at one point. */
  readonly zero: Estimate | null;
  /** Slope of that line less one. */
  readonly gain: Estimate | null;
  /** How far the middle stands above the ends; null with fewer than three points. */
  readonly bow: Estimate | null;
  readonly hysteresis: Estimate | null;
  readonly scatter: Scatter | null;
}

export interface Scatter {
  /** Standard deviation of a single reading, per cent of span. */
  readonly deviation: number;
  readonly degreesOfFreedom: number;
  readonly from: 'repeats' | 'smooth curve';
}

const PROBABILITY = 0.9545;
/** Below this a residual is the rounding of the arithmetic, not of the instrument. */
const NOISE = 1e-10;

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);

/** The straight line's part of a column taken out. */
function withoutLine(x: readonly number[], y: readonly number[]): number[] {
  const mean = sum(x) / x.length;
  const meanY = sum(y) / y.length;
  const sxx = sum(x.map((value) => (value - mean) ** 2));
  const slope = sxx > 0 ? sum(x.map((value, i) => (value - mean) * ((y[i] ?? 0) - meanY))) / sxx : 0;
  return x.map((value, i) => (y[i] ?? 0) - meanY - slope * (value - mean));
}

/** One in the middle, zero at both ends. */
const bowShape = (share: number): number => 4 * share * (1 - share);

const isOnePoint = (shares: readonly number[]): boolean => !(Math.max(...shares) > Math.min(...shares));

/** What each reading weighs in zero and gain of the line through all, and in the bow. */
function weightsOf(shares: readonly number[]): {
  readonly zero: readonly number[];
  readonly gain: readonly number[];
  readonly bow: readonly number[] | null;
} {
  const mean = sum(shares) / shares.length;
  const sxx = sum(shares.map((share) => (share - mean) ** 2));
  const gain = shares.map((share) => (share - mean) / sxx);
  const bent = withoutLine(shares, shares.map(bowShape));
  const size = sum(bent.map((value) => value ** 2));
  return {
    zero: gain.map((weight) => 1 / shares.length - mean * weight),
    gain,
    bow: size > NOISE ? bent.map((value) => value / size) : null,
  };
}

function groupsOf<T>(all: readonly T[], keyOf: (one: T) => string): T[][] {
  const groups = new Map<string, T[]>();
  for (const one of all) groups.set(keyOf(one), [...(groups.get(keyOf(one)) ?? []), one]);
  return [...groups.values()];
}

function fromRepeats(readings: readonly JudgedReading[]): Scatter | null {
  const groups = groupsOf(readings, ({ direction, nominalPercent }) => `${direction} ${nominalPercent}`);
  const degreesOfFreedom = readings.length - groups.length;
  if (degreesOfFreedom === 0) return null;
  const squares = sum(
    groups.map((group) => {
      const mean = sum(group.map(({ errorPercentSpan }) => errorPercentSpan)) / group.length;
      return sum(group.map(({ errorPercentSpan }) => (errorPercentSpan - mean) ** 2));
    }),
  );
  return { deviation: Math.sqrt(squares / degreesOfFreedom), degreesOfFreedom, from: 'repeats' };
}

/** Squares that a parabola leaves, and the degrees of freedom that are left; nothing of fewer than four readings. */
function leftByParabola(readings: readonly JudgedReading[]): readonly [squares: number, degrees: number] {
  const shares = readings.map(({ share }) => share);
  if (readings.length < 4 || isOnePoint(shares)) return [0, 0];
  const bent = withoutLine(shares, shares.map(bowShape));
  const straight = withoutLine(
    shares,
    readings.map(({ errorPercentSpan }) => errorPercentSpan),
  );
  const size = sum(bent.map((value) => value ** 2));
  if (!(size > NOISE)) return [0, 0];
  const bow = sum(bent.map((value, i) => value * (straight[i] ?? 0))) / size;
  return [sum(straight.map((value, i) => (value - bow * (bent[i] ?? 0)) ** 2)), readings.length - 3];
}

function fromCurve(readings: readonly JudgedReading[]): Scatter | null {
  const parts = groupsOf(readings, ({ direction }) => direction).map(leftByParabola);
  const degreesOfFreedom = sum(parts.map(([, degrees]) => degrees));
  if (degreesOfFreedom === 0) return null;
  const deviation = Math.sqrt(sum(parts.map(([squares]) => squares)) / degreesOfFreedom);
  return { deviation: deviation < NOISE ? 0 : deviation, degreesOfFreedom, from: 'smooth curve' };
}

/** How far a reading scatters; null of too few readings. */
export const scatterOf = (readings: readonly JudgedReading[]): Scatter | null =>
  fromRepeats(readings) ?? fromCurve(readings);

/** Of a combination of readings with weights; expanded, per cent of span. */
function uncertaintyOf(
  readings: readonly JudgedReading[],
  weights: readonly number[],
  scatter: Scatter | null,
  span: number,
): number | null {
  if (scatter === null && readings.some(({ uncertainty }) => uncertainty === undefined)) return null;
  const weighed = readings.map((reading, i) => ({ reading, weight: weights[i] ?? 0 }));
  // Readings of one point share what is uncertain of their standard; those of different points do not.
  const systematic = sum(
    groupsOf(weighed, ({ reading }) => String(reading.nominalPercent)).map(
      (group) =>
        sum(group.map(({ reading, weight }) => weight * (((reading.uncertainty ?? 0) / 2 / span) * 100))) **
        2,
    ),
  );
  const random = (scatter?.deviation ?? 0) ** 2 * sum(weights.map((weight) => weight ** 2));
  const combined = Math.sqrt(systematic + random);
  return combined * factorFor(combined, Math.sqrt(random), scatter);
}

/** Coverage factor of a combination of which a part is known from few readings. */
export function factorFor(combined: number, random: number, scatter: Scatter | null): number {
  if (scatter === null || random === 0) return coverageFactor(PROBABILITY, null);
  // A hair below a whole number is rounding.
  const degrees = Math.floor((combined / random) ** 4 * scatter.degreesOfFreedom + 1e-9);
  return coverageFactor(PROBABILITY, degrees);
}

/** What the errors of a run are made of. */
export function portraitOf(range: SignalRange, evaluation: RunEvaluation): Portrait {
  const { readings, leastSquares, hysteresisPercentSpan, domain } = evaluation;
  const scatter = scatterOf(readings);
  const hysteresis =
    hysteresisPercentSpan === null
      ? null
      : {
          value: hysteresisPercentSpan,
          uncertainty: scatter === null ? null : scatter.deviation * Math.SQRT2 * factorFor(1, 1, scatter),
        };
  if (leastSquares === null) return { zero: null, gain: null, bow: null, hysteresis, scatter };
  const weights = weightsOf(readings.map(({ share }) => share));
  // An uncertainty is in the unit of the tolerance's domain.
  const span = Math.abs(domain === 'output' ? range.outputHigh - range.outputLow : range.urv - range.lrv);
  const of = (own: readonly number[]) => uncertaintyOf(readings, own, scatter, span);
  return {
    zero: { value: leastSquares.zeroErrorPercentSpan, uncertainty: of(weights.zero) },
    gain: { value: leastSquares.spanErrorPercentSpan, uncertainty: of(weights.gain) },
    bow:
      weights.bow === null
        ? null
        : {
            value: sum(weights.bow.map((weight, i) => weight * (readings[i]?.errorPercentSpan ?? 0))),
            uncertainty: of(weights.bow),
          },
    hysteresis,
    scatter,
  };
}
