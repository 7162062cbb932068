/**
 * An analog transmitter with a zero and a span screw: y = b (x + c) + z, with x the share of the input span and y that of
 * the output. The zero screw moves z, the span screw b; c says how far the pivot of the span lies from zero, so that a
 * move of the span shifts zero by c times it. The screws have backlash, the curve a bend, the linkage friction, the body a
 * loop between rising and falling. Common practice, from memory; sizes are inventions.
 */
import { transferOf, share, type SignalRange } from '@barys/core/signal';
import { nextNoise } from '../chance';
import { dragged, lagged } from '../lag';

export interface Analog {
  readonly range: SignalRange;
  /** Where the pivot of the span lies, 0 at zero to about 0.4. */
  readonly pivot: number;
  /** What a turn of each screw moves, share of span. */
  readonly zeroPerTurn: number;
  readonly spanPerTurn: number;
  /** Turns that a screw is turned before it takes anything along. */
  readonly backlashTurns: number;
  /** Largest departure from the straight line, share of span: a cubic that is zero at the ends and in the middle. */
  readonly bend: number;
  /** Whole width of the loop at half, share of span, and of the friction. */
  readonly loop: number;
  readonly friction: number;
  readonly dampingS: number;
  readonly noise: { readonly sigma: number; readonly tauS: number };
  /** Share of span for 10 K from 20 °C. */
  readonly zeroPer10K: number;
  readonly spanPer10K: number;
  /** What the position makes of it, in the unit of the input. */
  readonly positionHead: number;
  /** Share of span for a volt from 24 V. */
  readonly perVolt: number;
  /** Least and greatest output, in its unit. */
  readonly saturation: readonly [low: number, high: number];
}

export interface AnalogState {
  /** Where the screws stand, and what they have taken along, in turns. */
  readonly zeroScrew: number;
  readonly zeroTaken: number;
  readonly spanScrew: number;
  readonly spanTaken: number;
  /** The input as the linkage follows it, share of span, and which way it last went. */
  readonly followed: number;
  readonly way: 1 | -1;
  readonly damped: number;
  readonly noise: number;
}

export interface Surroundings {
  readonly temperatureC: number;
  readonly supplyV: number;
}
export const USUAL: Surroundings = { temperatureC: 20, supplyV: 24 };

export const analogAtRest = (): AnalogState => ({
  zeroScrew: 0,
  zeroTaken: 0,
  spanScrew: 0,
  spanTaken: 0,
  followed: 0,
  way: 1,
  damped: 0,
  noise: 0,
});

/** Turns the screws; the last part of a turn back only takes up the backlash. */
export function turn(
  { backlashTurns }: Analog,
  state: AnalogState,
  turns: { readonly zero?: number; readonly span?: number },
): AnalogState {
  const [zeroScrew, spanScrew] = [state.zeroScrew + (turns.zero ?? 0), state.spanScrew + (turns.span ?? 0)];
  return {
    ...state,
    zeroScrew,
    zeroTaken: dragged(state.zeroTaken, zeroScrew, backlashTurns),
    spanScrew,
    spanTaken: dragged(state.spanTaken, spanScrew, backlashTurns),
  };
}

/** The largest of x (1 - x) (1 - 2 x) between 0 and 1: at 1/2 - 1/sqrt(12). */
const LARGEST_CUBIC = Math.sqrt(3) / 18;

/** Gain and zero as the screws stand, without the surroundings. */
export const screwsOf = (
  { pivot, zeroPerTurn, spanPerTurn }: Analog,
  { zeroTaken, spanTaken }: AnalogState,
): { readonly gain: number; readonly zero: number } => ({
  gain: 1 + spanPerTurn * spanTaken,
  zero: zeroPerTurn * zeroTaken + pivot * spanPerTurn * spanTaken,
});

/** The share of the output that a share of the input makes when all is at rest. */
function still(
  analog: Analog,
  state: AnalogState,
  x: number,
  { temperatureC, supplyV }: Surroundings,
): number {
  const { gain, zero } = screwsOf(analog, state);
  const warm = (temperatureC - 20) / 10;
  const bent = (analog.bend / LARGEST_CUBIC) * x * (1 - x) * (1 - 2 * x);
  const looped = -state.way * (analog.loop / 2) * 4 * x * (1 - x);
  return (
    gain * (1 + analog.spanPer10K * warm) * share(transferOf(analog.range), x) +
    zero +
    analog.zeroPer10K * warm +
    analog.perVolt * (supplyV - 24) +
    bent +
    looped
  );
}

/**
 * The transmitter after a time at an input that is held.
 * @param applied in the input unit
 * @param normal a standard normal draw, for the noise
 */
export function stepAnalog(
  analog: Analog,
  state: AnalogState,
  { applied, stepS, normal }: { readonly applied: number; readonly stepS: number; readonly normal: number },
  around: Surroundings = USUAL,
): AnalogState {
  const { lrv, urv } = analog.range;
  const x = (applied + analog.positionHead - lrv) / (urv - lrv);
  const followed = dragged(state.followed, x, analog.friction);
  const way: 1 | -1 = followed > state.followed ? 1 : followed < state.followed ? -1 : state.way;
  const moved = { ...state, followed, way };
  return {
    ...moved,
    damped: lagged(state.damped, still(analog, moved, followed, around), analog.dampingS, stepS),
    noise: nextNoise(state.noise, analog.noise, stepS, normal),
  };
}

/** In the unit of the output. */
export function outputOf({ range, saturation: [low, high] }: Analog, { damped, noise }: AnalogState): number {
  const output = range.outputLow + (damped + noise) * (range.outputHigh - range.outputLow);
  return Math.min(high, Math.max(low, output));
}
