/**
 * What a two-wire loop leaves a transmitter of its supply: V = V_supply - V_drop - I R (Ohm's law). Copper of 1.724e-8 ohm m at
 * 20 °C and 0.00393 per kelvin (IACS, from memory); wire by area, or by American gauge with d = 0.127 mm 92^((36 - n) / 39).
 */
import { CoreError, requireBetween, requireFinite, requireNotNegative, requirePositive } from '../errors';

export interface Wire {
  /** One way; the current goes there and back, m. */
  readonly lengthM: number;
  readonly areaMm2: number;
  readonly temperatureC: number;
}

export interface LoopSupply {
  readonly supplyV: number;
  /** Least voltage at the terminals of the transmitter. */
  readonly liftOffV: number;
  readonly wire: Wire;
  /** Of the receiver, across which a voltage is read, or of a resistor for communication. */
  readonly senseOhm: number;
  readonly barrierOhm: number;
  /** What a barrier takes besides its resistance, V. */
  readonly barrierDropV: number;
  readonly otherOhm: number;
}

const COPPER_OHM_M = 1.724e-8;
const COPPER_PER_K = 0.00393;
const COPPER_AT_C = 20;

/** Area of an American wire gauge, mm². @throws CoreError `out-of-bounds` */
export function areaOfGauge(gauge: number): number {
  requireBetween('The wire gauge', gauge, [-3, 40, 'AWG'], 'gauge');
  const diameterMm = 0.127 * 92 ** ((36 - gauge) / 39);
  return (Math.PI / 4) * diameterMm ** 2;
}

/** Resistance of both conductors for a metre of way, ohms. */
function ohmPerMetre({ areaMm2, temperatureC }: Wire): number {
  const resistivity = COPPER_OHM_M * (1 + COPPER_PER_K * (temperatureC - COPPER_AT_C));
  return (2 * resistivity) / (areaMm2 * 1e-6);
}

function checkWire({ lengthM, areaMm2, temperatureC }: Wire): void {
  requireNotNegative('The length of the cable', lengthM, 'lengthM');
  requirePositive('The area of a conductor', areaMm2, 'areaMm2');
  // Below this the straight line of copper would be a resistance below nothing.
  requireBetween('The temperature of the cable', temperatureC, [-200, 400, '°C'], 'temperatureC');
}

/** Resistance of a cable there and back, ohms. @throws CoreError `negative`, `not-positive`, `out-of-bounds` */
export function wireOhm(wire: Wire): number {
  checkWire(wire);
  return ohmPerMetre(wire) * wire.lengthM;
}

function check({ supplyV, liftOffV, senseOhm, barrierOhm, barrierDropV, otherOhm }: LoopSupply): void {
  requirePositive('The supply', supplyV, 'supplyV');
  requirePositive('The lift-off voltage', liftOffV, 'liftOffV');
  requireNotNegative('The resistor', senseOhm, 'senseOhm');
  requireNotNegative('The resistance of the barrier', barrierOhm, 'barrierOhm');
  requireNotNegative('The voltage of the barrier', barrierDropV, 'barrierDropV');
  requireNotNegative('Other resistance', otherOhm, 'otherOhm');
}

/** NAMUR NE 43 (from memory): the current of a failure upwards. */
export const FAILURE_MILLIAMP = 21;
/** Least resistance that digital communication over the loop needs: 230 to 250 ohms (common practice, from memory). */
export const COMMUNICATION_OHM = 230;

export interface SupplyBudget {
  readonly wireOhm: number;
  readonly totalOhm: number;
  /** At the terminals of the transmitter, V; plain arithmetic even where the loop could not carry the current. */
  readonly terminalV: { readonly at4: number; readonly at20: number; readonly atFailure: number };
  /** Largest resistance of the whole loop, ohms. */
  readonly mostOhm: { readonly at20: number; readonly atFailure: number };
  /** What is left at the failure current. */
  readonly marginOhm: number;
  readonly marginV: number;
  /** Whether the transmitter has its lift-off voltage at the failure current; just so is enough. */
  readonly isEnough: boolean;
  /** Current that the supply allows before the transmitter lifts off, mA; null where there is no resistance. */
  readonly mostMilliamp: number | null;
  /** Longest cable of this kind, one way, m; none fits where it is 0. */
  readonly longestM: number;
  /** Least supply for this loop, V. */
  readonly leastSupplyV: number;
  /** Whether there is resistance enough for digital communication, the wire not counted. */
  readonly canCommunicate: boolean;
}

/** A hair of rounding does not make a supply too small. */
const ROUNDING_V = 1e-9;

/**
 * What the supply leaves, and how far it reaches.
 * @param failureMilliamp the highest current that the transmitter puts out
 * @throws CoreError `not-positive`, `negative`, `out-of-bounds`
 */
export function supplyBudget(given: LoopSupply, failureMilliamp: number = FAILURE_MILLIAMP): SupplyBudget {
  check(given);
  requirePositive('The failure current', failureMilliamp, 'failureMilliamp');
  const { supplyV, liftOffV, wire, senseOhm, barrierOhm, barrierDropV, otherOhm } = given;
  const cable = wireOhm(wire);
  const rest = senseOhm + barrierOhm + otherOhm;
  const totalOhm = cable + rest;
  const open = supplyV - barrierDropV;
  const terminal = (milliamp: number) => open - (milliamp / 1000) * totalOhm;
  const most = (milliamp: number) => ((open - liftOffV) / milliamp) * 1000;
  const marginV = terminal(failureMilliamp) - liftOffV;
  return {
    wireOhm: cable,
    totalOhm,
    terminalV: { at4: terminal(4), at20: terminal(20), atFailure: terminal(failureMilliamp) },
    mostOhm: { at20: most(20), atFailure: most(failureMilliamp) },
    marginOhm: most(failureMilliamp) - totalOhm,
    marginV,
    isEnough: marginV >= -ROUNDING_V,
    mostMilliamp: totalOhm === 0 ? null : Math.max(0, ((open - liftOffV) / totalOhm) * 1000),
    longestM: Math.max(0, (most(failureMilliamp) - rest) / ohmPerMetre(wire)),
    leastSupplyV: liftOffV + barrierDropV + (failureMilliamp / 1000) * totalOhm,
    canCommunicate: rest >= COMMUNICATION_OHM,
  };
}

/**
 * What a terminal voltage that was measured says of the loop: the difference in ohms of a connection that is bad, or of
 * resistance that nobody entered. Negative where there is less than was entered.
 * @throws CoreError `not-positive`, `not-finite`
 */
export function badConnectionOhm(given: LoopSupply, measuredV: number, atMilliamp: number): number {
  requireFinite('The voltage measured', measuredV, 'measuredV');
  requirePositive('The current', atMilliamp, 'atMilliamp');
  const { supplyV, barrierDropV } = given;
  const { totalOhm } = supplyBudget(given);
  return ((supplyV - barrierDropV - measuredV) / atMilliamp) * 1000 - totalOhm;
}

export interface ReceiverVoltage {
  readonly nominalV: number;
  readonly leastV: number;
  readonly mostV: number;
}

/**
 * What a receiver gets across its resistor, and between which limits its tolerance leaves it.
 * @param inputOhm of the receiver beside the resistor; null where it takes no current
 * @throws CoreError `not-positive`, `negative`
 */
export function receiverVoltage(
  milliamp: number,
  resistorOhm: number,
  tolerancePercent: number,
  inputOhm: number | null,
): ReceiverVoltage {
  requireFinite('The current', milliamp, 'milliamp');
  requirePositive('The resistor', resistorOhm, 'resistorOhm');
  requireNotNegative('The tolerance of the resistor', tolerancePercent, 'tolerancePercent');
  if (inputOhm !== null) requirePositive('The input resistance', inputOhm, 'inputOhm');
  if (tolerancePercent >= 100)
    throw new CoreError(
      {
        code: 'out-of-bounds',
        name: 'The tolerance of the resistor',
        value: tolerancePercent,
        lowest: 0,
        highest: 100,
        unit: '%',
      },
      'tolerancePercent',
    );
  const volts = (ohm: number) =>
    (milliamp / 1000) * (inputOhm === null ? ohm : (ohm * inputOhm) / (ohm + inputOhm));
  const part = tolerancePercent / 100;
  return {
    nominalV: volts(resistorOhm),
    leastV: volts(resistorOhm * (1 - part)),
    mostV: volts(resistorOhm * (1 + part)),
  };
}
