/**
 * A dial gauge: the needle sticks within a friction band around its place until the gauge is tapped, the tube reads less going
 * up than coming down, and the eye reads to half a division with a parallax that is its own. Common practice, from memory.
 */
import { dragged } from '../lag';

export interface Dial {
  /** Ends of the scale, in its unit. */
  readonly low: number;
  readonly high: number;
  readonly division: number;
  /** Whole width of the friction, and of the loop at half scale, share of span. */
  readonly friction: number;
  readonly loop: number;
  readonly zero: number;
  /** Gain less one. */
  readonly gain: number;
  /** What the eye reads too much, share of a division. */
  readonly parallax: number;
}

export interface DialState {
  /** Where the needle stands, share of span. */
  readonly needle: number;
  /** The pressure as the tube follows it, and which way it last went. */
  readonly applied: number;
  readonly way: 1 | -1;
}

export const dialAt = ({ low }: Dial, applied = low): DialState => ({ needle: 0, applied, way: 1 });

/** Where the needle would stand without friction, share of span. */
function placeOf({ low, high, loop, zero, gain }: Dial, { applied, way }: DialState): number {
  const x = (applied - low) / (high - low);
  return x * (1 + gain) + zero - (way * loop * 4 * x * (1 - x)) / 2;
}

/** Another pressure: the needle follows once the friction is overcome. */
export function press(dial: Dial, state: DialState, applied: number): DialState {
  const way = applied > state.applied ? 1 : applied < state.applied ? -1 : state.way;
  const moved: DialState = { ...state, applied, way };
  return { ...moved, needle: dragged(state.needle, placeOf(dial, moved), dial.friction) };
}

/** A tap frees the needle: it goes to its place, always towards the truth of the tube. */
export const tap = (dial: Dial, state: DialState): DialState => ({ ...state, needle: placeOf(dial, state) });

/** As an eye reads it: to half a division, held by the stop at the lower end. */
export function readDial({ low, high, division, parallax }: Dial, { needle }: DialState): number {
  const shown = low + Math.max(0, needle) * (high - low) + parallax * division;
  const half = division / 2;
  return Math.round(shown / half) * half;
}
