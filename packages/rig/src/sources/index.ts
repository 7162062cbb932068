/**
 * Sources and references that make or show a pressure: regulator, controller, manometer, deadweight tester. Pressures are gauge,
 * in one unit throughout. Common practice and textbook physics, from memory; sizes are inventions.
 */
import { lagged } from '../lag';
import { swung, timeToPeak, type Swing } from './oscillation';

export interface Regulator {
  /** Output for a turn of the knob, and turns at the low end in which it does nothing. */
  readonly perTurn: number;
  readonly deadTurns: number;
  /** What it jumps to once it opens. */
  readonly jump: number;
  /** Pressure lost for a unit of flow, and creep a second of a worn seat. */
  readonly droop: number;
  readonly creepPerS: number;
}

/** A regulator that does little at its low end, and then jumps. */
export function regulated(
  { perTurn, deadTurns, jump, droop, creepPerS }: Regulator,
  turns: number,
  { flow = 0, shutForS = 0 }: { readonly flow?: number; readonly shutForS?: number } = {},
): number {
  if (turns <= deadTurns) return 0;
  return Math.max(0, Math.max(jump, perTurn * (turns - deadTurns)) - droop * flow + creepPerS * shutForS);
}

export interface Controller {
  /** Natural frequency, rad/s, and damping of its approach, and its fastest change a second. */
  readonly omega: number;
  readonly zeta: number;
  readonly ratePerS: number;
  /** How near, and for how long, it has to be before it says that it is stable. */
  readonly band: number;
  readonly holdS: number;
  /** What its own sensor is wrong by. */
  readonly offset: number;
  readonly gain: number;
}

/** Its swing is that of what its own sensor shows. */
export interface ControllerState extends Swing {
  /** Where the rate limit has come to on its way to the point that was set. */
  readonly ramp: number;
  readonly insideS: number;
}

export const controllerAtRest: ControllerState = { x: 0, v: 0, ramp: 0, insideS: 0 };

/** The controller after a time: the ramp goes to the point by its rate, the pressure follows the ramp as it swings. */
export function control(
  controller: Controller,
  state: ControllerState,
  set: number,
  stepS: number,
): ControllerState {
  const { omega, zeta, ratePerS, band } = controller;
  const most = ratePerS * stepS;
  const ramp = state.ramp + Math.min(most, Math.max(-most, set - state.ramp));
  const { x, v } = swung(state, ramp, omega, zeta, stepS);
  return {
    x,
    v,
    ramp,
    insideS: Math.abs(x - set) <= band ? state.insideS + stepS : 0,
  };
}

/** The pressure that it really makes: it controls what its own sensor shows. */
export const madeBy = ({ offset, gain }: Controller, { x }: Pick<Swing, 'x'>): number =>
  (x - offset) / (1 + gain);

export const isStable = ({ holdS }: Controller, { insideS }: ControllerState): boolean => insideS >= holdS;

export interface Manometer {
  /** Height of liquid for a unit of pressure, and its full length. */
  readonly perUnit: number;
  readonly length: number;
  readonly omega: number;
  readonly zeta: number;
  /** What the eye is off by at the meniscus, in the unit of height. */
  readonly parallax: number;
}

/** The column after a time; past its end it spills, and what is spilt is gone. */
export function column(
  { perUnit, length, omega, zeta }: Manometer,
  state: Swing,
  pressure: number,
  stepS: number,
): Swing & { readonly isSpilt: boolean } {
  const [to, next] = [pressure * perUnit, swung(state, pressure * perUnit, omega, zeta, stepS)];
  // It may go over the end and come back within one step.
  const peak = swung(state, to, omega, zeta, Math.min(stepS, timeToPeak(state, to, omega, zeta)));
  return Math.max(next.x, peak.x) > length ? { x: length, v: 0, isSpilt: true } : { ...next, isSpilt: false };
}

/** As an eye reads it, in the unit of pressure. */
export const readColumn = ({ perUnit, parallax }: Manometer, { x }: Swing): number =>
  (x + parallax) / perUnit;

export interface Deadweight {
  /** Whole height in which the piston floats, and how fast it sinks, in the same length a second. */
  readonly float: number;
  readonly sinkPerS: number;
  /** Friction of a piston that does not turn, share of the pressure. */
  readonly friction: number;
  /** How long a spin goes on, s. */
  readonly spinS: number;
}

export interface DeadweightState {
  readonly height: number;
  readonly spin: number;
}

/** The piston after a time: it sinks, and its spin dies away. */
export const sunk = (
  { sinkPerS, spinS }: Deadweight,
  { height, spin }: DeadweightState,
  stepS: number,
): DeadweightState => ({
  height: Math.max(0, height - sinkPerS * stepS),
  spin: lagged(spin, 0, spinS, stepS),
});

/**
 * The pressure that the weights make: none at the stops, and off by the friction where the piston does not turn.
 * @param nominal what the weights stand for
 * @param way 1 where the pressure came from below, -1 from above
 */
export function weighed(
  { float, friction }: Deadweight,
  { height, spin }: DeadweightState,
  nominal: number,
  way: 1 | -1,
): number | null {
  if (height <= 0 || height >= float) return null;
  return spin > 0.05 ? nominal : nominal * (1 - way * friction);
}
