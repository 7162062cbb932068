/** The core's advice on a stored run, and on the screw to set next after it. Free of PostgreSQL. */
import {
  adviseOn,
  type AdjustableBody,
  type Advice,
  type ScrewMove,
  type ScrewSituation,
} from '@barys/core/adjust';
import { parseTyped } from '@barys/core/text';
import { besideOf, besideVerdicts } from './beside';
import type { Run } from './copy';
import { appliedAt, limitsOf, outputAt, readingsOf, sourcesOf } from './evaluation';

type AdvisedRun = Pick<Run, 'madeWith' | 'readings'>;

/** How the instrument of a run is adjusted: as the run keeps it, or as its body says today where that is older. */
export const bodyOfRun = ({ madeWith }: AdvisedRun, today: AdjustableBody): AdjustableBody =>
  madeWith.body.technology === null
    ? today
    : { technology: madeWith.body.technology, trims: madeWith.body.trims };

/** A gauge over decades is judged by its reading: zero and span of a line say nothing of it. */
export const isOverDecades = ({ madeWith: { tolerance } }: Pick<Run, 'madeWith'>): boolean =>
  tolerance.percentOfSpan === 0;

/** Smallest step of a reading, in the output unit. */
function stepOf({ madeWith, readings }: AdvisedRun): number {
  const [first] = readings;
  const point = madeWith.points.find(({ position }) => position === first?.position);
  if (first === undefined || point === undefined) return 0;
  const applied = appliedAt(madeWith, point, first.applied);
  return sourcesOf(madeWith, point, applied, outputAt(madeWith, first.output), first.day).readingStepOutput;
}

/**
 * Advice on a run; null of one over decades.
 * @param body where the run does not keep how its instrument is adjusted
 * @param isRangeWrong whether another range was read from the instrument than it should have
 */
export function adviceOnRun(run: AdvisedRun, body: AdjustableBody, isRangeWrong: boolean): Advice | null {
  if (isOverDecades(run)) return null;
  const { configuration, tolerance, decisionRule, judgesBeyondUncertainty, school } = run.madeWith;
  const judged = readingsOf(run);
  return adviseOn({
    range: configuration,
    tolerance: limitsOf(tolerance),
    readings: judged.map((reading, i) => {
      const digital = run.readings[i]?.more.digital;
      return digital === undefined ? reading : { ...reading, digital: parseTyped(digital).value };
    }),
    rule: { ...decisionRule, judgesBeyondUncertainty },
    body: bodyOfRun(run, body),
    school,
    readingStep: stepOf(run),
    hasFriction: besideVerdicts(besideOf(run)).friction === 'outside',
    isRangeWrong,
  });
}

/** What of a logged adjustment tells of the screws. */
export interface LoggedMove {
  readonly kind: string;
  readonly atApplied: number;
  readonly before: number;
  readonly after: number;
}

/** A screw is set at an end of the range; what was set elsewhere tells nothing of both. */
const AT_END = 0.005;
/** How near to its aim a screw is set, per cent of the adjust limit: what is left of care after it is no gain. */
const SET_WITHIN = 0.1;

/**
 * Where zero and span screws stand after a run; null where that was not read at both ends.
 * @param moves logged since, in their order
 */
export function screwsAfter(
  run: AdvisedRun,
  { found, portrait }: Advice,
  moves: readonly LoggedMove[],
): Omit<ScrewSituation, 'now'> | null {
  const { configuration: range, tolerance } = run.madeWith;
  const errorAt = (percent: number): number | null => {
    const there = found.readings.filter(({ nominalPercent }) => nominalPercent === percent);
    const rising = there.filter(({ direction }) => direction === 'up');
    const used = rising.length > 0 ? rising : there;
    return used.length === 0
      ? null
      : used.reduce((sum, { errorOutput }) => sum + errorOutput, 0) / used.length;
  };
  const [low, high] = [errorAt(0), errorAt(100)];
  if (low === null || high === null) return null;
  const limits = found.readings.map(({ limit }) => limit);
  const span = Math.abs(range.outputHigh - range.outputLow);
  const step = stepOf(run);
  const screw = ({ kind, atApplied }: LoggedMove): ScrewMove['screw'] | null => {
    const share = (atApplied - range.lrv) / (range.urv - range.lrv);
    if (kind === 'zero' && Math.abs(share) <= AT_END) return 'zero';
    return kind === 'span' && Math.abs(share - 1) <= AT_END ? 'span' : null;
  };
  return {
    targets: [range.outputLow, range.outputHigh],
    found: [range.outputLow + low, range.outputHigh + high],
    moves: moves.flatMap((move) => {
      const of = screw(move);
      return of === null ? [] : [{ screw: of, before: move.before, after: move.after }];
    }),
    noise: Math.max(((portrait.scatter?.deviation ?? 0) / 100) * span, step / Math.sqrt(12)),
    tolerance: Math.max(
      step,
      (Math.min(...limits) * tolerance.adjustAbovePercentOfLimit * SET_WITHIN) / 100,
      span * 1e-6,
    ),
  };
}
