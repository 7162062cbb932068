/** What the corridor shows: error in units of the limit against the input, for screen and paper alike. */
import type { Outlook } from '@barys/core/adjust';
import type { Direction } from '@barys/core/procedure';
import { guardBand } from '@barys/core/run';
import { formatPlain } from '@barys/core/text';
import { PRESSURE_UNITS } from '@barys/core/units';
import { evaluateStoredRun, type StoredRun } from '@barys/store/evaluation';

export interface CorridorPoint {
  /** Along the axis: per cent of span, or decades. */
  readonly x: number;
  /** Error as a part of the limit. */
  readonly y: number;
  readonly direction: Direction;
  /** Expanded uncertainty of the error as a part of the limit, for the whiskers; null where it is not known. */
  readonly reach: number | null;
  /** Errors up to here are accepted, as a part of the limit: what the guard band of the rule leaves. */
  readonly accepted: number;
}

export interface CorridorAxis {
  readonly from: number;
  readonly to: number;
  readonly ticks: readonly { readonly at: number; readonly word: string }[];
}

/** Plain data, so that a server can hand it to a browser. */
export interface CorridorShape {
  readonly axis: CorridorAxis;
  /** Where the paler strip begins, as a part of the limit. */
  readonly adjustAbove: number;
  readonly asFound: readonly CorridorPoint[];
  readonly asLeft: readonly CorridorPoint[];
  /** What the advised act would leave of what was found. */
  readonly predicted: readonly CorridorPoint[];
  /** What a suspicion would read like: the line that it fits through what was found; empty where none is shown. */
  readonly fitted: readonly CorridorPoint[];
  /** The edge of the guard band from left to right; empty where the rule has none. */
  readonly guard: readonly Pick<CorridorPoint, 'x' | 'accepted'>[];
}

/** From here on a linear axis would put the lower points on top of each other. */
const DECADES_FROM = 2;

/** The decades of a run over several of them, which is limited by its reading; null for one that is read on a span. */
function decadesOfRun({ tolerance, points }: StoredRun['madeWith']): readonly [number, number] | null {
  if (tolerance.percentOfSpan > 0 || tolerance.percentOfReading === 0 || points.length === 0) return null;
  const applied = points.map(({ nominalApplied }) => nominalApplied);
  const [least, most] = [Math.min(...applied), Math.max(...applied)];
  if (!(least > 0) || Math.log10(most / least) < DECADES_FROM) return null;
  // A nominal value is a whole power of ten but for its rounding.
  return [Math.floor(Math.log10(least) + 1e-9), Math.ceil(Math.log10(most) - 1e-9)];
}

function axisOf(madeWith: StoredRun['madeWith'], decades: readonly [number, number] | null): CorridorAxis {
  if (decades === null)
    return {
      from: 0,
      to: 100,
      ticks: [0, 25, 50, 75, 100].map((at) => ({ at, word: `${at} %` })),
    };
  const [from, to] = decades;
  const unit = PRESSURE_UNITS[madeWith.configuration.inputUnit].label;
  return {
    from,
    to,
    ticks: Array.from({ length: to - from + 1 }, (_, step) => from + step).map((at) => ({
      at,
      word: `${formatPlain(Number(`1e${at}`))}${at === to ? ` ${unit}` : ''}`,
    })),
  };
}

function pointsOf(run: StoredRun, isDecades: boolean): CorridorPoint[] {
  const { configuration, decisionRule } = run.madeWith;
  const { lrv, urv } = configuration;
  return evaluateStoredRun(run).readings.flatMap(({ applied, errorOfLimit, direction, limit, uncertainty }) =>
    // Where the limit is zero an error has no place in units of it; the table beside the drawing has it.
    errorOfLimit === null || limit === 0 || (isDecades && applied <= 0)
      ? []
      : [
          {
            x: isDecades ? Math.log10(applied) : ((applied - lrv) / (urv - lrv)) * 100,
            y: errorOfLimit,
            direction,
            reach: uncertainty === undefined ? null : uncertainty / limit,
            accepted: Math.max(0, 1 - guardBand(decisionRule, limit, uncertainty ?? 0) / limit),
          },
        ],
  );
}

/** Where an act would bring each reading; one without a place in the corridor has none here either. */
function predictedOf(run: StoredRun, predicted: readonly Outlook[] | null): CorridorPoint[] {
  const { lrv, urv } = run.madeWith.configuration;
  const { readings } = evaluateStoredRun(run);
  return (predicted ?? []).flatMap(({ errorOfLimit, uncertaintyOfLimit }, i) => {
    const reading = readings[i];
    return reading === undefined || errorOfLimit === null
      ? []
      : [
          {
            x: ((reading.applied - lrv) / (urv - lrv)) * 100,
            y: errorOfLimit,
            direction: reading.direction,
            reach: uncertaintyOfLimit,
            accepted: 1,
          },
        ];
  });
}

/** Errors that a suspicion makes of a run, per cent of span in the order of its readings, where the corridor has a place for them. */
export function fittedOf(run: StoredRun, errorsPercentSpan: readonly number[]): CorridorPoint[] {
  const { lrv, urv, outputLow, outputHigh } = run.madeWith.configuration;
  const span = Math.abs(outputHigh - outputLow);
  return evaluateStoredRun(run).readings.flatMap(({ applied, direction, limit }, i) => {
    const error = errorsPercentSpan[i];
    return error === undefined || limit === 0
      ? []
      : [
          {
            x: ((applied - lrv) / (urv - lrv)) * 100,
            y: ((error / 100) * span) / limit,
            direction,
            reach: null,
            accepted: 1,
          },
        ];
  });
}

/** The corridor of one run, or of the same points as found and as left, or of what was found and what is advised. */
export function corridorOf(
  asFound: StoredRun,
  asLeft: StoredRun | null = null,
  predicted: readonly Outlook[] | null = null,
): CorridorShape {
  const { madeWith } = asLeft ?? asFound;
  const decades = decadesOfRun(madeWith);
  const found = pointsOf(asFound, decades !== null);
  const left = asLeft === null ? [] : pointsOf(asLeft, decades !== null);
  return {
    axis: axisOf(madeWith, decades),
    adjustAbove: madeWith.tolerance.adjustAbovePercentOfLimit / 100,
    asFound: found,
    asLeft: left,
    predicted: predictedOf(asFound, predicted),
    fitted: [],
    guard:
      madeWith.decisionRule.kind === 'simple'
        ? []
        : [...(left.length > 0 ? left : found)]
            .sort((a, b) => a.x - b.x)
            .map(({ x, accepted }) => ({ x, accepted })),
  };
}

/** Errors and limits of what lies between two taps of a loop, on axes of their own. */
export interface PlainPoint {
  readonly xPercent: number;
  readonly direction: Direction;
  readonly errorPercent: number;
  readonly limitPercent: number | null;
}

const placed = ({ xPercent, direction, limitPercent }: PlainPoint, errorPercent: number): CorridorPoint[] =>
  limitPercent === null || limitPercent === 0
    ? []
    : [{ x: xPercent, y: errorPercent / limitPercent, direction, reach: null, accepted: 1 }];

/** The corridor of errors that were not read in a run of their own, and the places of a line through them. */
export function corridorOfPoints(points: readonly PlainPoint[]): {
  readonly shape: CorridorShape;
  readonly fitted: (errorsPercentSpan: readonly number[]) => readonly CorridorPoint[];
} {
  return {
    shape: {
      axis: { from: 0, to: 100, ticks: [0, 25, 50, 75, 100].map((at) => ({ at, word: `${at} %` })) },
      adjustAbove: 1,
      asFound: points.flatMap((point) => placed(point, point.errorPercent)),
      asLeft: [],
      predicted: [],
      fitted: [],
      guard: [],
    },
    fitted: (errors) => points.flatMap((point, i) => placed(point, errors[i] ?? 0)),
  };
}

/** How far the error axis reaches either way: a little outside the limit, or as far as the worst reading needs. */
export function corridorReach({ asFound, asLeft }: Pick<CorridorShape, 'asFound' | 'asLeft'>): number {
  const worst = Math.max(0, ...[...asFound, ...asLeft].map((point) => Math.abs(point.y)));
  return Math.max(1.35, worst * 1.12);
}
