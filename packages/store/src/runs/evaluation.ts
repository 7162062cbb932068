/** The core's figures for a stored run. Free of PostgreSQL, so that a browser can judge what it has just sent. */
import { atInstrument } from '@barys/core/corrections';
import { exactSum } from '@barys/core/exact';
import {
  errorUncertainty,
  evaluateRun,
  verdictOfRun,
  type DecisionRule,
  type ErrorSources,
  type RunEvaluation,
  type RunReading,
  type Tolerance,
  type Verdict,
} from '@barys/core/run';
import { StoreError } from '../db/errors';
import type { SpanTolerance } from '../registers/instrument';
import type { PointMark } from './marks';
import { betweenUnits, correctionAt, expandedAt, widthFactor } from './accuracy';
import type { MadeWith, Reading } from './copy';

/** What of a run's copy its judgement rests on. */
export type JudgedBy = Pick<
  MadeWith,
  | 'configuration'
  | 'tolerance'
  | 'decisionRule'
  | 'judgesBeyondUncertainty'
  | 'points'
  | 'pressureReference'
  | 'secondReference'
  | 'meter'
  | 'head'
  | 'takenOn'
> &
  Partial<Pick<MadeWith, 'driftsToReading'>>;

export interface StoredRun {
  readonly madeWith: JudgedBy;
  readonly readings: readonly (Pick<Reading, 'position' | 'applied' | 'output'> &
    Partial<Pick<Reading, 'day'>>)[];
  /** Points at which nothing was read, and why that is so is kept. */
  readonly marks?: readonly Pick<PointMark, 'position' | 'kind'>[];
}

/** Points that have neither a reading nor a word on why there is none. */
export function openPoints({ madeWith, readings, marks = [] }: StoredRun): MadeWith['points'] {
  const done = new Set([
    ...readings.map(({ position }) => position),
    ...marks.filter(({ kind }) => kind === 'no reading').map(({ position }) => position),
  ]);
  return madeWith.points.filter(({ position }) => !done.has(position));
}

export const missingPoints = (run: StoredRun): number => openPoints(run).length;

/** The limit as the core takes it; in the output's unit. */
export function limitsOf(tolerance: SpanTolerance): Tolerance {
  const { percentOfSpan, middlePercentOfSpan, percentOfReading, adjustAbovePercentOfLimit } = tolerance;
  return {
    terms: [
      ...(middlePercentOfSpan === null
        ? [{ kind: 'percent-of-span' as const, percent: percentOfSpan }]
        : [
            {
              kind: 'percent-of-span-in-zones' as const,
              middlePercent: middlePercentOfSpan,
              outerPercent: percentOfSpan,
            },
          ]),
      ...(percentOfReading === 0
        ? []
        : [{ kind: 'percent-of-reading' as const, percent: percentOfReading, of: 'applied' as const }]),
    ],
    combine: 'sum',
    domain: 'output',
    adjustAbovePercentOfLimit,
  };
}

/** The standard that a point was, or is to be, measured with. */
export const standardAt = (
  { pressureReference, secondReference }: Pick<MadeWith, 'pressureReference' | 'secondReference'>,
  point: Pick<MadeWith['points'][number], 'standard'>,
): MadeWith['pressureReference'] =>
  point.standard === 'second' && secondReference !== null ? secondReference : pressureReference;

/** The day up to which the standards of a run are taken to have drifted at a reading. */
export const driftDay = (madeWith: JudgedBy, day: string | undefined): string =>
  (madeWith.driftsToReading === true ? day : undefined) ?? madeWith.takenOn;

/** What a reference read with the correction of its certificate, in a unit of the instrument; as read where it has none. */
function corrected(reference: MadeWith['pressureReference'], read: number, unit: string): number {
  if (reference.results.length === 0) return read;
  const [to, from] = betweenUnits(unit, reference);
  return exactSum(read, from(correctionAt(reference, to(read))));
}

/**
 * What the instrument saw where the standard read a value: the correction of the standard's certificate and the head
 * between the two, all in the input unit.
 */
export const appliedAt = (
  madeWith: Pick<MadeWith, 'configuration' | 'pressureReference' | 'secondReference' | 'head'>,
  point: Pick<MadeWith['points'][number], 'standard'>,
  atStandard: number,
): number =>
  atInstrument(
    corrected(standardAt(madeWith, point), atStandard, madeWith.configuration.inputUnit),
    madeWith.head,
  );

/** What the output was where the meter read a value: with the correction of the meter's certificate, in the output unit. */
export const outputAt = (
  { meter, configuration }: Pick<MadeWith, 'configuration' | 'meter'>,
  read: number,
): number => (meter === null ? read : corrected(meter, read, configuration.outputUnit));

/**
 * What the uncertainty of one reading's error is made of, referred to the instrument's own units.
 * @param applied at the instrument; the standard sees the head less
 * @param day ISO date of the reading, up to which the standards drift; that of the run where it is not known yet
 */
export function sourcesOf(
  madeWith: JudgedBy,
  point: MadeWith['points'][number],
  applied: number,
  output: number,
  day?: string,
): ErrorSources {
  const { configuration, meter } = madeWith;
  const today = driftDay(madeWith, day);
  const standard = standardAt(madeWith, point);
  const inputFactor = widthFactor(configuration.inputUnit, standard);
  const outputFactor = meter === null ? 1 : widthFactor(configuration.outputUnit, meter);
  const atStandard = atInstrument(applied, -madeWith.head) / inputFactor;
  return {
    standardInput: expandedAt(standard, atStandard, { today }) * inputFactor,
    standardStepInput: standard.resolution * inputFactor,
    meterOutput: meter === null ? 0 : expandedAt(meter, output / outputFactor, { today }) * outputFactor,
    readingStepOutput:
      meter === null ? (configuration.scaleDivision ?? 0) / 2 : meter.resolution * outputFactor,
  };
}

/**
 * The readings of a run as the core takes them, in the order of `run.readings`: at the instrument, corrected as the
 * certificates of the standards say, and each with its uncertainty where the run's copy has what that is made of.
 * @throws StoreError `no-such-point`
 */
export function readingsOf({ madeWith, readings }: StoredRun): RunReading[] {
  const points = new Map(madeWith.points.map((point) => [point.position, point]));
  return readings.map(({ position, applied: atStandard, output: read, day }) => {
    const point = points.get(position);
    if (point === undefined) throw new StoreError({ code: 'no-such-point', position });
    const { cycle, direction, nominalPercent } = point;
    const applied = appliedAt(madeWith, point, atStandard);
    const output = outputAt(madeWith, read);
    // Runs of before there was one keep no specification of their standards, so there is nothing to make it from.
    if (madeWith.takenOn === '') return { cycle, direction, nominalPercent, applied, output };
    const sources = sourcesOf(madeWith, point, applied, output, day);
    const uncertainty = errorUncertainty(madeWith.configuration, applied, sources);
    return { cycle, direction, nominalPercent, applied, output, uncertainty };
  });
}

/** Range, limit and decision rule of a run, as the core takes them. */
function judgedBy({
  madeWith,
}: StoredRun): readonly [range: JudgedBy['configuration'], tolerance: Tolerance, rule: DecisionRule] {
  const { configuration, tolerance, decisionRule, judgesBeyondUncertainty } = madeWith;
  return [configuration, limitsOf(tolerance), { ...decisionRule, judgesBeyondUncertainty }];
}

/** Evaluates readings against the range, the limit and the decision rule of a run. */
export function evaluateReadings(run: StoredRun, readings: readonly RunReading[]): RunEvaluation {
  const [range, tolerance, rule] = judgedBy(run);
  return evaluateRun(range, tolerance, readings, rule);
}

/**
 * Evaluates what there is of a run; the figures' readings stand in the order of `run.readings`.
 * @throws StoreError `no-such-point`
 */
export const evaluateStoredRun = (run: StoredRun): RunEvaluation => evaluateReadings(run, readingsOf(run));

/**
 * The worst verdict of what there is of a run, where its figures are not asked for.
 * @throws StoreError `no-such-point`
 */
export function verdictOfStoredRun(run: StoredRun): Verdict | null {
  const [range, tolerance, rule] = judgedBy(run);
  return verdictOfRun(range, tolerance, readingsOf(run), rule);
}
