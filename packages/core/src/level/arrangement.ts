/**
 * How a level is measured by differential pressure: knowledge as data. Heights are above the lower tap (the end of the
 * tube of a bubbler, the bottom of a tank on a standpipe), densities in kg/m³, everything in SI.
 */
import { CoreError, requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';

export const ARRANGEMENTS = {
  open: {
    name: 'Open tank',
    /** What lies on the other side of the transmitter: the air, or a leg to an upper tap filled with this. */
    leg: null,
    /** What the line from the lower tap to the transmitter holds. */
    line: 'liquid',
    /** What lies above the liquid, where it counts. */
    above: null,
  },
  standpipe: { name: 'Tank on a standpipe', leg: null, line: 'liquid', above: null },
  bubbler: { name: 'Bubbler', leg: null, line: 'gas', above: null },
  'one-seal': { name: 'Open tank, one remote seal', leg: null, line: 'fill', above: null },
  'dry-leg': { name: 'Closed tank, dry leg', leg: 'above', line: 'liquid', above: 'gas' },
  'wet-leg': { name: 'Closed tank, wet leg', leg: 'fill', line: 'liquid', above: 'gas' },
  'two-seals': { name: 'Closed tank, two remote seals', leg: 'fill', line: 'fill', above: 'gas' },
  interface: { name: 'Interface of two liquids', leg: 'fill', line: 'liquid', above: 'light liquid' },
} as const satisfies Record<string, Arrangement>;

interface Arrangement {
  readonly name: string;
  readonly leg: 'above' | 'fill' | null;
  readonly line: 'liquid' | 'fill' | 'gas';
  readonly above: 'gas' | 'light liquid' | null;
}

export type ArrangementName = keyof typeof ARRANGEMENTS;

/** Which side of the transmitter is on the lower tap. */
export type HighSide = 'lower tap' | 'leg';

export interface LevelMeasurement {
  readonly arrangement: ArrangementName;
  /** Whose level is measured; of an interface, the heavy one. */
  readonly liquidKgPerM3: number;
  /** Gas, vapour, or the light liquid above it; not used where the tank is open. */
  readonly aboveKgPerM3?: number | undefined;
  /** Fill of the wet leg or of the capillaries; not used where there is none. */
  readonly fillKgPerM3?: number | undefined;
  /** What the line below the lower tap holds, where that is not what the arrangement has. */
  readonly lineKgPerM3?: number | undefined;
  /** Levels at 0 and at 100 %, above the lower tap, m. */
  readonly zeroM: number;
  readonly fullM: number;
  /** From the lower tap up to the upper one, m; not used where there is none. */
  readonly tapsM?: number | undefined;
  /** Transmitter below the lower tap, m; negative where it is above. */
  readonly dropM: number;
  /** What the purge of a bubbler loses on its way, Pa. */
  readonly purgeLossPa?: number | undefined;
  readonly highSide: HighSide;
  readonly gravityMPerS2: number;
}

/** The pressures that the two sides differ by, as numbers. */
export interface Balance {
  readonly liquid: number;
  /** 0 where the tank is open. */
  readonly above: number;
  readonly line: number;
  readonly leg: number;
  readonly tapsM: number;
  readonly dropM: number;
  readonly lossPa: number;
  readonly sign: 1 | -1;
  readonly gravity: number;
}

const required = (value: number | undefined, name: string, why: string, field: string): number => {
  if (value === undefined) throw new CoreError({ code: 'missing', name, why }, field);
  return value;
};

const isClosed = ({ arrangement }: LevelMeasurement): boolean => ARRANGEMENTS[arrangement].leg !== null;

/** Densities that an arrangement has; what it has not is 0. */
function densitiesOf(given: LevelMeasurement): Pick<Balance, 'liquid' | 'above' | 'line' | 'leg'> {
  const { leg, line, above, name } = ARRANGEMENTS[given.arrangement];
  const of = name.toLowerCase();
  requirePositive('The density of the liquid', given.liquidKgPerM3, 'liquidKgPerM3');
  const liquid = given.liquidKgPerM3;
  const over =
    above === null ? 0 : required(given.aboveKgPerM3, `The density of the ${above}`, of, 'aboveKgPerM3');
  requireNotNegative('The density above the liquid', over, 'aboveKgPerM3');
  if (over >= liquid)
    throw new CoreError(
      {
        code: 'reversed-limits',
        name: 'The densities above and below the level',
        lower: over,
        upper: liquid,
      },
      'aboveKgPerM3',
    );
  const needsFill = leg === 'fill' || line === 'fill';
  const fill = needsFill ? required(given.fillKgPerM3, 'The density of the fill', of, 'fillKgPerM3') : 0;
  if (needsFill) requirePositive('The density of the fill', fill, 'fillKgPerM3');
  const inLine = given.lineKgPerM3 ?? { liquid, fill, gas: 0 }[line];
  requireNotNegative('The density in the line below the tap', inLine, 'lineKgPerM3');
  return { liquid, above: over, line: inLine, leg: { above: over, fill, none: 0 }[leg ?? 'none'] };
}

function checkLevels(given: LevelMeasurement, tapsM: number): void {
  requireFinite('The level at 0 %', given.zeroM, 'zeroM');
  requireFinite('The level at 100 %', given.fullM, 'fullM');
  requireBetween('The height of the transmitter below the tap', given.dropM, [-200, 200, 'm'], 'dropM');
  if (given.zeroM >= given.fullM)
    throw new CoreError(
      { code: 'reversed-limits', name: 'The levels', lower: given.zeroM, upper: given.fullM },
      'fullM',
    );
  requireNotNegative('The level at 0 %, above the lower tap,', given.zeroM, 'zeroM');
  const highest = isClosed(given) ? tapsM : 200;
  requireBetween('The level at 100 %', given.fullM, [0, highest, 'm above the lower tap'], 'fullM');
}

/**
 * What is given, checked, as the numbers of the two sides.
 * @throws CoreError with the field that is wrong
 */
export function balanceOf(given: LevelMeasurement): Balance {
  const densities = densitiesOf(given);
  const tapsM = isClosed(given)
    ? required(given.tapsM, 'The distance between the taps', 'a closed tank has two', 'tapsM')
    : 0;
  if (isClosed(given)) requirePositive('The distance between the taps', tapsM, 'tapsM');
  checkLevels(given, tapsM);
  const lossPa = given.arrangement === 'bubbler' ? (given.purgeLossPa ?? 0) : 0;
  requireNotNegative('The loss of the purge', lossPa, 'purgeLossPa');
  requireBetween('Gravity', given.gravityMPerS2, [9.7, 9.9, 'm/s²'], 'gravityMPerS2');
  return {
    ...densities,
    tapsM,
    dropM: given.dropM,
    lossPa,
    sign: given.highSide === 'lower tap' ? 1 : -1,
    gravity: given.gravityMPerS2,
  };
}

/**
 * Differential pressure at the transmitter, high side less low side, Pa.
 *
 * From the space above the liquid down both sides (hydrostatics, common practice):
 * rho g L + rho_above g (D - L) + rho_line g h + loss - rho_leg g (D + h), D the distance of the taps and h the drop.
 */
export const differentialOf = (
  { liquid, above, line, leg, tapsM, dropM, lossPa, sign, gravity }: Balance,
  levelM: number,
): number =>
  sign *
  (gravity * (liquid * levelM + above * (tapsM - levelM) * (tapsM > 0 ? 1 : 0) + line * dropM) +
    lossPa -
    gravity * leg * (tapsM > 0 ? tapsM + dropM : 0));
