/**
 * What is read beside the output, judged like it. Free of PostgreSQL.
 *
 * With a digital value the stages of a smart transmitter are told apart: the sensor by the digital value against what was
 * applied, the output by the current against the digital value. Friction is the difference that a tap makes, against the
 * limit of the gauge's class; with zones that of the middle one (ASME B40.100, from memory).
 */
import {
  errorUncertainty,
  judgeReading,
  limitAt,
  spanTolerance,
  worstVerdict,
  type JudgedReading,
  type RunReading,
  type Verdict,
} from '@barys/core/run';
import type { SignalRange } from '@barys/core/signal';
import { parseTyped } from '@barys/core/text';
import { appliedAt, limitsOf, outputAt, sourcesOf, type StoredRun } from './evaluation';
import type { ExtraColumn, MadeWith, Reading, SecondScale } from './copy';

export type Beside = 'sensor' | 'output' | 'second' | 'friction';

/** One figure beside a reading: an error, or the friction that a tap freed. */
export interface BesideFigure {
  /** In the unit that it was read in. */
  readonly value: number;
  readonly percentOfSpan: number;
  readonly limitPercentOfSpan: number;
  readonly verdict: Verdict;
}

export type BesideReading = Readonly<Partial<Record<Beside, BesideFigure>>>;

type ReadBeside = Pick<Reading, 'position' | 'applied' | 'output' | 'more'> & Partial<Pick<Reading, 'day'>>;
export type RunBeside = Omit<StoredRun, 'readings'> & {
  readonly madeWith: StoredRun['madeWith'] & Pick<MadeWith, 'columns' | 'secondIndication' | 'secondScale'>;
  readonly readings: readonly ReadBeside[];
};

/** The scale of a second indication; the instrument's own display has it in its configuration. */
export function secondScaleOf({
  configuration,
  tolerance,
  secondIndication,
  secondScale,
}: Pick<MadeWith, 'configuration' | 'tolerance' | 'secondIndication' | 'secondScale'>): SecondScale | null {
  if (secondScale !== null) return secondScale;
  if (secondIndication !== 'own display' || tolerance.percentOfSpan === 0) return null;
  const { displayUnit: unit, displayLow: low, displayHigh: high } = configuration;
  return low === high ? null : { unit, low, high, percentOfSpan: tolerance.percentOfSpan };
}

/** What each column is expected to follow; null for one whose scale nobody knows. */
export function rangeOfColumn(
  madeWith: RunBeside['madeWith'],
  column: ExtraColumn | 'output',
): SignalRange | null {
  const { configuration } = madeWith;
  if (column === 'output' || column === 'before-tap') return configuration;
  const { lrv, urv, transferFunction } = configuration;
  if (column === 'digital') return { lrv, urv, outputLow: lrv, outputHigh: urv };
  const scale = secondScaleOf(madeWith);
  return scale === null ? null : { lrv, urv, outputLow: scale.low, outputHigh: scale.high, transferFunction };
}

function figureOf(range: SignalRange, judged: JudgedReading): BesideFigure {
  const span = Math.abs(range.outputHigh - range.outputLow);
  return {
    value: judged.errorOutput,
    percentOfSpan: judged.errorPercentSpan,
    limitPercentOfSpan: (judged.limit / span) * 100,
    verdict: judged.verdict,
  };
}

function frictionOf(
  madeWith: RunBeside['madeWith'],
  applied: number,
  before: number,
  after: number,
): BesideFigure {
  const { configuration: range, tolerance } = madeWith;
  const { middlePercentOfSpan } = tolerance;
  const allowed = limitsOf(
    middlePercentOfSpan === null
      ? tolerance
      : { ...tolerance, percentOfSpan: middlePercentOfSpan, middlePercentOfSpan: null },
  );
  const span = Math.abs(range.outputHigh - range.outputLow);
  const friction = Math.abs(after - before);
  const limit = limitAt(range, allowed, applied, after);
  return {
    value: friction,
    percentOfSpan: (friction / span) * 100,
    limitPercentOfSpan: (limit / span) * 100,
    // Scales are read in decimals; a difference of two of them carries binary noise of the last bits.
    verdict: friction <= limit * (1 + 1e-9) ? 'within' : 'outside',
  };
}

/** The figures beside each reading of a run, in their order; empty where nothing was read beside it. */
export function besideOf({ madeWith, readings }: RunBeside): readonly BesideReading[] {
  const tolerance = limitsOf(madeWith.tolerance);
  const rule = { judgesBeyondUncertainty: madeWith.judgesBeyondUncertainty, kind: 'simple' } as const;
  return readings.map(({ position, applied: atStandard, output: read, more, day }): BesideReading => {
    const point = madeWith.points.find((one) => one.position === position);
    if (point === undefined) return {};
    const applied = appliedAt(madeWith, point, atStandard);
    const output = outputAt(madeWith, read);
    const sources = sourcesOf(madeWith, point, applied, output, day);
    const ofStandard = { ...sources, meterOutput: 0, readingStepOutput: 0 };
    const ofMeter = { ...sources, standardInput: 0, standardStepInput: 0 };
    const judge = (
      range: SignalRange,
      by: typeof tolerance,
      read: Pick<RunReading, 'applied' | 'output'>,
      own: typeof sources,
    ): BesideFigure => {
      const { cycle, direction, nominalPercent } = point;
      const uncertainty = errorUncertainty(range, read.applied, own);
      return figureOf(
        range,
        judgeReading(range, by, { cycle, direction, nominalPercent, ...read, uncertainty }, rule),
      );
    };
    const found: Partial<Record<Beside, BesideFigure>> = {};
    const typed = (column: ExtraColumn): number | null =>
      more[column] === undefined ? null : parseTyped(more[column]).value;
    const [digital, second, before] = [typed('digital'), typed('second'), typed('before-tap')];
    const sensor = rangeOfColumn(madeWith, 'digital');
    if (digital !== null && sensor !== null) {
      found.sensor = judge(sensor, tolerance, { applied, output: digital }, ofStandard);
      found.output = judge(madeWith.configuration, tolerance, { applied: digital, output }, ofMeter);
    }
    const scale = secondScaleOf(madeWith);
    const shown = rangeOfColumn(madeWith, 'second');
    if (second !== null && scale !== null && shown !== null)
      found.second = judge(
        shown,
        spanTolerance(scale.percentOfSpan),
        { applied, output: second },
        ofStandard,
      );
    if (before !== null) found.friction = frictionOf(madeWith, applied, before, read);
    return found;
  });
}

/** The worst verdict of each figure over a run; nothing of one that was not read. */
export function besideVerdicts(readings: readonly BesideReading[]): Partial<Record<Beside, Verdict>> {
  const worst: Partial<Record<Beside, Verdict>> = {};
  for (const kind of ['sensor', 'output', 'second', 'friction'] as const) {
    const verdict = worstVerdict(readings.flatMap((one) => one[kind]?.verdict ?? []));
    if (verdict !== null) worst[kind] = verdict;
  }
  return worst;
}
