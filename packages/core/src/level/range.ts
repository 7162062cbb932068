/** The range of a transmitter that measures a level, and what it says of other levels and other densities. */
import { CoreError, requireFinite, requireNotNegative, requirePositive } from '../errors';
import { balanceOf, differentialOf, type Balance, type LevelMeasurement } from './arrangement';

export interface LevelRange {
  /** Differential at 0 and at 100 %, high side less low side, Pa. */
  readonly lrvPa: number;
  readonly urvPa: number;
  /** Absolute. */
  readonly spanPa: number;
}

/**
 * Lower and upper range value.
 * @throws CoreError with the field that is wrong
 */
export function levelRange(given: LevelMeasurement): LevelRange {
  const balance = balanceOf(given);
  const [lrvPa, urvPa] = [differentialOf(balance, given.zeroM), differentialOf(balance, given.fullM)];
  return { lrvPa: lrvPa + 0, urvPa: urvPa + 0, spanPa: Math.abs(urvPa - lrvPa) };
}

/**
 * Where the zero of a range lies, in a sentence: the words elevation and suppression are used both ways in practice, so
 * they are said with what they mean.
 */
export type ZeroShift = 'none' | 'suppressed' | 'elevated' | 'reversed';

/** @param range in one unit throughout */
export function zeroShiftOf({ lrvPa, urvPa }: LevelRange): ZeroShift {
  if (lrvPa > urvPa) return 'reversed';
  if (lrvPa > 0) return 'suppressed';
  return lrvPa < 0 ? 'elevated' : 'none';
}

/** The same measurement with other contents: what may differ from what the range was made for. */
export type Contents = Partial<
  Pick<LevelMeasurement, 'liquidKgPerM3' | 'aboveKgPerM3' | 'fillKgPerM3' | 'lineKgPerM3'>
>;

/** The level that a differential stands for, by the range, m above the lower tap. */
const levelAt = (given: LevelMeasurement, { lrvPa, urvPa }: LevelRange, differentialPa: number): number =>
  given.zeroM + ((differentialPa - lrvPa) / (urvPa - lrvPa)) * (given.fullM - given.zeroM);

export interface LevelIndication {
  readonly differentialPa: number;
  readonly indicatedM: number;
  /** Indicated less true. */
  readonly errorM: number;
  readonly errorPercentOfSpan: number;
}

/**
 * What is shown at a true level while the contents are others than the range was made for. The line below the tap holds
 * what is in the tank where the arrangement has it so.
 * @throws CoreError with the field that is wrong
 */
export function levelIndication(
  given: LevelMeasurement,
  contents: Contents,
  trueLevelM: number,
): LevelIndication {
  requireFinite('The true level', trueLevelM, 'trueLevelM');
  requireNotNegative('The true level, above the lower tap,', trueLevelM, 'trueLevelM');
  const differentialPa = differentialOf(balanceOf({ ...given, ...contents }), trueLevelM) + 0;
  const indicatedM = levelAt(given, levelRange(given), differentialPa);
  const errorM = indicatedM - trueLevelM;
  return {
    differentialPa,
    indicatedM,
    errorM,
    errorPercentOfSpan: (errorM / (given.fullM - given.zeroM)) * 100,
  };
}

/**
 * Level from a measured differential, the densities known: what a computer that has them shows.
 * @returns m above the lower tap
 * @throws CoreError with the field that is wrong
 */
export function levelFromDifferential(given: LevelMeasurement, differentialPa: number): number {
  requireFinite('The differential', differentialPa, 'differentialPa');
  return levelAt(given, levelRange(given), differentialPa);
}

/**
 * Shift of the shown level, m, when a filled leg has lost the upper part of its fill: positive where it reads high.
 * @param lostM how far its surface stands below the upper tap; gas, or the light liquid, has taken its place
 * @throws CoreError `out-of-bounds` beyond the leg, `undefined-result` where there is no filled leg
 */
export function shiftOfLostLeg(given: LevelMeasurement, lostM: number): number {
  const balance = balanceOf(given);
  if (given.fillKgPerM3 === undefined || balance.tapsM === 0)
    throw new CoreError(
      { code: 'undefined-result', name: 'The shift', why: 'this arrangement has no filled leg' },
      'arrangement',
    );
  requireNotNegative('What the leg has lost', lostM, 'lostM');
  if (lostM > balance.tapsM + Math.max(0, balance.dropM))
    throw new CoreError(
      {
        code: 'out-of-bounds',
        name: 'What the leg has lost',
        value: lostM,
        lowest: 0,
        highest: balance.tapsM + Math.max(0, balance.dropM),
        unit: 'm',
      },
      'lostM',
    );
  return levelPerPascal(balance) * (balance.leg - balance.above) * balance.gravity * lostM;
}

/** Level for one pascal more on the side of the lower tap, m/Pa. */
const levelPerPascal = ({ liquid, above, tapsM, gravity }: Balance): number =>
  1 / (gravity * (liquid - (tapsM > 0 ? above : 0)));

/**
 * The error of a level that a limit of error of the transmitter allows.
 * @param limitPa of the differential, Pa
 * @returns m
 * @throws CoreError with the field that is wrong
 */
export function levelOfLimit(given: LevelMeasurement, limitPa: number): number {
  requirePositive('The limit of error', limitPa, 'limitPa');
  return levelPerPascal(balanceOf(given)) * limitPa;
}
