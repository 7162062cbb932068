/**
 * What is read beside the output, judged like it. Free of PostgreSQL.
 *
 * With a digital value the stages of a smart transmitter are told apart: the sensor by the digital value against what was
 * applied, the output by the current against the digital value. Friction is the difference that a tap makes, against the
 * limit of the gauge's class; with zones that of the middle one (ASME B40.100, from memory).
 */
import { CoreError } from '@barys/core/errors';
import { judgeTap, rangeOfTap, tapsOf } from '@barys/core/loop';
import {
  errorUncertainty,
  judgeReading,
  limitAt,
  spanTolerance,
  worstVerdict,
  type JudgedReading,
  type ErrorSources,
  type RunReading,
  type Verdict,
} from '@barys/core/run';
import type { SignalRange } from '@barys/core/signal';
import { parseTyped } from '@barys/core/text';
import { appliedAt, limitsOf, outputAt, sourcesOf, type StoredRun } from './evaluation';
import { itemsOf, type LoopContent } from '../registers/loop-content';
import {
  TAP_COLUMNS,
  type ExtraColumn,
  type MadeWith,
  type Reading,
  type SecondScale,
  type TapColumn,
} from './copy';

export type Beside = 'sensor' | 'output' | 'second' | 'friction' | TapColumn;

/** One figure beside a reading: an error, or the friction that a tap freed. */
export interface BesideFigure {
  /** In the unit that it was read in. */
  readonly value: number;
  readonly percentOfSpan: number;
  /** Null where there is none: behind a root at no flow, or behind two. */
  readonly limitPercentOfSpan: number | null;
  readonly verdict: Verdict;
}

export type BesideReading = Readonly<Partial<Record<Beside, BesideFigure>>>;

type ReadBeside = Pick<Reading, 'position' | 'applied' | 'output' | 'more'> & Partial<Pick<Reading, 'day'>>;
export type RunBeside = Omit<StoredRun, 'readings'> & {
  readonly madeWith: StoredRun['madeWith'] &
    Pick<MadeWith, 'columns' | 'secondIndication' | 'secondScale'> &
    Partial<Pick<MadeWith, 'loop'>>;
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

/** The item that a tap column reads, and its place; null of a run that checks no loop. */
export function tapOfColumn(
  { loop }: Partial<Pick<MadeWith, 'loop'>>,
  column: TapColumn,
): { readonly place: number; readonly item: LoopContent['items'][number] } | null {
  const place = loop?.taps[TAP_COLUMNS.indexOf(column)];
  const item = place === undefined ? undefined : loop?.content.items[place];
  return place === undefined || item === undefined ? null : { place, item };
}

export const isTapColumn = (column: string): column is TapColumn =>
  (TAP_COLUMNS as readonly string[]).includes(column);

/** The taps that a run reads, each with its scale. */
export function tapsOfRun(madeWith: Pick<MadeWith, 'columns' | 'loop'>): readonly {
  readonly column: TapColumn;
  readonly name: string;
  readonly unit: string;
  readonly low: number;
  readonly high: number;
}[] {
  return madeWith.columns.filter(isTapColumn).flatMap((column) => {
    const tap = tapOfColumn(madeWith, column);
    if (tap === null) return [];
    const { name, outputUnit: unit, output } = tap.item;
    return [{ column, name, unit, low: output.low, high: output.high }];
  });
}

function rangeOfTapColumn(madeWith: RunBeside['madeWith'], column: TapColumn): SignalRange | null {
  const { loop } = madeWith;
  const tap = tapOfColumn(madeWith, column);
  if (loop === null || loop === undefined || tap === null) return null;
  try {
    return rangeOfTap(itemsOf(loop.content), tap.place);
  } catch (error) {
    // Two roots on the way make no range.
    if (error instanceof CoreError) return null;
    throw error;
  }
}

/** A reading at a tap, judged by the tolerances on its way. */
function tapFigure(
  madeWith: RunBeside['madeWith'],
  column: TapColumn,
  reading: Omit<RunReading, 'output'>,
  read: number,
  sources: ErrorSources,
): BesideFigure | null {
  const { loop } = madeWith;
  const tap = tapOfColumn(madeWith, column);
  if (loop === null || loop === undefined || tap === null) return null;
  const items = itemsOf(loop.content);
  const range = rangeOfTapColumn(madeWith, column);
  const uncertainty = range === null ? 0 : errorUncertainty(range, reading.applied, sources);
  const judged = judgeTap(items, tap.place, { ...reading, output: read, uncertainty }, loop.content.judgedBy);
  const { output } = tap.item;
  const span = Math.abs(output.high - output.low);
  if (judged === null) {
    const error = read - (tapsOf(items, reading.applied)[tap.place] ?? 0);
    return {
      value: error,
      percentOfSpan: (error / span) * 100,
      limitPercentOfSpan: null,
      verdict: 'not-judged',
    };
  }
  return {
    value: judged.errorOutput,
    percentOfSpan: (judged.errorOutput / span) * 100,
    limitPercentOfSpan: (judged.limit / span) * 100,
    verdict: judged.verdict,
  };
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
  if (column !== 'second') return rangeOfTapColumn(madeWith, column);
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
    for (const column of TAP_COLUMNS) {
      const read = typed(column);
      if (read === null) continue;
      const { cycle, direction, nominalPercent } = point;
      const figure = tapFigure(
        madeWith,
        column,
        { cycle, direction, nominalPercent, applied },
        read,
        ofStandard,
      );
      if (figure !== null) found[column] = figure;
    }
    if (before !== null) found.friction = frictionOf(madeWith, applied, before, read);
    return found;
  });
}

/**
 * The worst of what could be judged: where a root at no flow has no limit, the other points say it. Not judged where none of them
 * can; null of nothing.
 * @param verdicts null is what has no limit
 */
export function judgedWhereItCan(verdicts: readonly (Verdict | null)[]): Verdict | null {
  const worst = worstVerdict(verdicts.filter((one) => one !== null));
  return worst ?? (verdicts.length > 0 ? 'not-judged' : null);
}

/** The verdict on a tap over a run. */
export const tapVerdict = (figures: readonly BesideFigure[]): Verdict | null =>
  judgedWhereItCan(
    figures.map(({ limitPercentOfSpan, verdict }) => (limitPercentOfSpan === null ? null : verdict)),
  );

/** The worst verdict of each figure over a run; nothing of one that was not read. */
export function besideVerdicts(readings: readonly BesideReading[]): Partial<Record<Beside, Verdict>> {
  const worst: Partial<Record<Beside, Verdict>> = {};
  for (const kind of ['sensor', 'output', 'second', 'friction', ...TAP_COLUMNS] as const) {
    const verdict = tapVerdict(readings.flatMap((one) => one[kind] ?? []));
    if (verdict !== null) worst[kind] = verdict;
  }
  return worst;
}

export { TAP_COLUMNS, type TapColumn } from './copy';
