/**
 * What speaks against an adjustment before it is made: refused where it would imprint a fault or mislead, warned where it is
 * right only sometimes. Sizes that no standard fixes are common practice, from memory, and say so.
 */
import { formatPlain, formatSignificant } from '../text';
import { appliedForOutput, transferOf, type SignalRange } from '../signal';
import type { PressureKind } from '../units';
import { isZeroTrimmed, type AdjustableBody } from './acts';
import { FURTHER_THAN_DRIFT } from './advice';

export type GuardedAct = 'zero' | 'span' | 'sensor trim' | 'output trim' | 're-range';

export interface Circumstances {
  readonly kind: PressureKind;
  readonly body: AdjustableBody;
  /** Input unit, in words. */
  readonly unit: string;
  /** What is applied, input unit. */
  readonly applied: number;
  /** What a zero trim would take away, input unit; null where it is not known. */
  readonly offset: number | null;
  /** The adjust limit at zero, referred to the input, input unit. */
  readonly adjustLimit: number;
  /** Of the body, in the input unit. */
  readonly lowerRangeLimit: number;
  readonly upperRangeLimit: number;
  /** Pressure of the air, in the input unit. */
  readonly barometer: number;
  /** Whether the line lost more than the leak check allows; null where none was made. */
  readonly isLeaking: boolean | null;
  /** Whether the reading still moves; null where nobody watched it. */
  readonly isMoving: boolean | null;
  /** Whether something follows the loop. */
  readonly isLoopFollowed: boolean;
  /** The range read from the instrument is another than its own. */
  readonly isRangeWrong: boolean;
  /** Largest of zero and gain error of what would be trimmed, per cent of span; null where it is not known. */
  readonly errorPercentSpan: number | null;
  /** The sensor is past its adjust limit and the output stage is not. */
  readonly isFaultBeforeOutput: boolean;
  /** An error of the sensor is what was found: another range would not cure it. */
  readonly isSensorError: boolean;
}

export type GuardCode =
  | 'at-atmosphere'
  | 'not-true-zero'
  | 'large-zero'
  | 'over-ranged'
  | 'moving'
  | 'leaking'
  | 'leak-unknown'
  | 'loop-followed'
  | 'range-wrong'
  | 'further-than-drift'
  | 'wrong-stage'
  | 're-range-cures-nothing'
  | 'trim-for-range';

export interface Guard {
  readonly code: GuardCode;
  readonly level: 'refused' | 'warned';
  readonly why: string;
}

/** Above this share of the barometer a pressure counts as atmosphere. */
const NEAR_ATMOSPHERE = 0.8;
/** A zero trim beyond this share of the upper range limit is no mounting position any more: common practice, from memory. */
const LARGE_ZERO_PERCENT = 3;

/** Absolute pressures are set far below that of the air, which moves with the weather. */
export function isAtAtmosphere(
  act: GuardedAct,
  { kind, applied, barometer }: Pick<Circumstances, 'kind' | 'applied' | 'barometer'>,
): boolean {
  const isSpanOfVacuum = kind === 'vacuum' && act === 'span';
  const isZeroOfAbsolute = kind === 'absolute' && act === 'zero';
  return (isSpanOfVacuum || isZeroOfAbsolute) && !(applied < NEAR_ATMOSPHERE * barometer);
}

const isTrim = (act: GuardedAct): boolean => act !== 're-range';

function zeroGuards(at: Circumstances): Guard[] {
  const { kind, body, applied, adjustLimit, offset, upperRangeLimit, unit } = at;
  const found: Guard[] = [];
  // A zero screw is set at the low end of the range; a zero trim takes what is there for nothing.
  if (isZeroTrimmed(body) && kind !== 'vacuum' && kind !== 'absolute' && Math.abs(applied) > adjustLimit)
    found.push({
      code: 'not-true-zero',
      level: 'refused',
      why: `A zero trim takes what is applied for nothing: ${formatPlain(applied)} ${unit} would become an error of its own. Vent or equalise first; to set the low end of the range, trim the sensor there.`,
    });
  const large = (LARGE_ZERO_PERCENT / 100) * Math.abs(upperRangeLimit);
  if (isZeroTrimmed(body) && offset !== null && Math.abs(offset) > large)
    found.push({
      code: 'large-zero',
      level: 'warned',
      why: `${formatSignificant(offset, 3)} ${unit} is more than ${LARGE_ZERO_PERCENT} % of the upper range limit, and more than a mounting position makes: look for liquid in a line, a closed equalising valve or an over-ranged sensor first (common practice).`,
    });
  return found;
}

function restGuards(act: GuardedAct, at: Circumstances): Guard[] {
  const { applied, lowerRangeLimit, upperRangeLimit, isMoving, isLeaking, unit } = at;
  const found: Guard[] = [];
  if (act !== 'output trim' && (applied > upperRangeLimit || applied < lowerRangeLimit))
    found.push({
      code: 'over-ranged',
      level: 'refused',
      why: `${formatPlain(applied)} ${unit} is outside the limits of the body, ${formatPlain(lowerRangeLimit)} to ${formatPlain(upperRangeLimit)} ${unit}: what it reads there says nothing.`,
    });
  if (isMoving === true)
    found.push({
      code: 'moving',
      level: 'refused',
      why: 'The reading still moves: what is trimmed now is where it happens to be. Wait until it stands.',
    });
  if (isLeaking === true && act !== 'output trim' && applied !== 0)
    found.push({
      code: 'leaking',
      level: 'refused',
      why: 'The line lost more than the leak check allows: the sensor does not see what the standard shows. Find the leak first.',
    });
  if (isLeaking === null && act !== 'output trim' && applied !== 0)
    found.push({
      code: 'leak-unknown',
      level: 'warned',
      why: 'Nobody has checked this line for leaks: what leaks is seen by the sensor as less than the standard shows.',
    });
  return found;
}

function stageGuards(act: GuardedAct, at: Circumstances): Guard[] {
  const found: Guard[] = [];
  if (act === 'output trim' && at.isLoopFollowed)
    found.push({
      code: 'loop-followed',
      level: 'refused',
      why: 'Something follows this loop: an output trim drives it to 4 and 20 mA. The job has to say that the controller is in manual, or that none uses it.',
    });
  if (act === 'output trim' && at.isFaultBeforeOutput)
    found.push({
      code: 'wrong-stage',
      level: 'warned',
      why: 'The digital value is wrong and the output follows it: an output trim would bring the current right and hide the fault of the sensor.',
    });
  return found;
}

function rangeGuards(act: GuardedAct, at: Circumstances): Guard[] {
  if (act === 're-range')
    return at.isSensorError && !at.isRangeWrong
      ? [
          {
            code: 're-range-cures-nothing',
            level: 'warned',
            why: 'Another range moves what 4 and 20 mA stand for and cures no sensor: the digital value stays wrong. A trim is meant.',
          },
        ]
      : [];
  if (at.isRangeWrong)
    return [
      {
        code: 'trim-for-range',
        level: 'refused',
        why: 'The range set in it is another than its own: a trim would hide that. Set the range first, then run as found again.',
      },
    ];
  return at.errorPercentSpan !== null && Math.abs(at.errorPercentSpan) > FURTHER_THAN_DRIFT
    ? [
        {
          code: 'further-than-drift',
          level: 'warned',
          why: `${formatSignificant(at.errorPercentSpan, 3)} % of span is further than sensors and outputs go by themselves: read which range, unit and transfer function are set in it before anything is trimmed (common practice).`,
        },
      ]
    : [];
}

/** What speaks against an act here, the refusals first. */
export function guardsOf(act: GuardedAct, at: Circumstances): readonly Guard[] {
  const found: Guard[] = [];
  if (isAtAtmosphere(act, at))
    found.push({
      code: 'at-atmosphere',
      level: 'refused',
      why: 'The barometer moves, and the setting would move with it. Pump down first.',
    });
  if (act === 'zero') found.push(...zeroGuards(at));
  if (isTrim(act)) found.push(...restGuards(act, at));
  found.push(...stageGuards(act, at), ...rangeGuards(act, at));
  return found.sort((a, b) => Number(a.level === 'warned') - Number(b.level === 'warned'));
}

/** All of a job that guards look at, but for what is applied and read at the adjustment itself. */
export type GuardedJob = Omit<Circumstances, 'applied' | 'offset' | 'isMoving'>;

/**
 * What speaks against an adjustment of a job at what is applied.
 * @param before output before it, in the output unit; null where it is not known
 * @param isMoving whether the reading still moves; null where nobody watched it
 */
export function guardsAt(
  job: GuardedJob,
  act: GuardedAct,
  range: SignalRange,
  {
    applied,
    before,
    isMoving,
  }: { readonly applied: number; readonly before: number | null; readonly isMoving: boolean | null },
): readonly Guard[] {
  // Through a root the output near zero says nothing of the offset before it.
  const isStraight = transferOf(range).kind === 'linear';
  const offset = before === null || !isStraight ? null : appliedForOutput(range, before) - applied;
  return guardsOf(act, { ...job, applied, offset, isMoving });
}
