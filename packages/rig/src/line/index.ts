/**
 * The way from a source to an instrument: a volume that fills through a restriction and loses through a leak, and what stands
 * in it. Mass balance of a gas at one temperature, C dp/dt = (p_source - p) / R_in - p / R_leak, whose time constants are
 * R_in C and R_leak C; pressures are gauge. A head of liquid adds to it, less where a bubble stands in its place, which
 * shrinks as the pressure rises (Boyle). Textbook physics, from memory; sizes are inventions.
 */
import { lagged } from '../lag';

export interface Line {
  /** Time constants of filling, and of a laminar leak to the air, s; Infinity is tight. */
  readonly fillS: number;
  readonly leakS: number;
  /** Head of the liquid in it at the instrument, in the unit of the pressure. */
  readonly head: number;
  /** Head that is missing where a bubble stands, at the pressure of the air, and that pressure, absolute. */
  readonly bubble: number;
  readonly ambient: number;
}

/** Where the pressure comes to rest, and with which time constant. */
export function restOf(
  { fillS, leakS }: Line,
  source: number,
): { readonly rest: number; readonly tauS: number } {
  // Both at once: conductances add.
  const [inwards, outwards] = [1 / Math.max(fillS, 1e-9), 1 / leakS];
  return { rest: (source * inwards) / (inwards + outwards), tauS: 1 / (inwards + outwards) };
}

/** The gas pressure at the end of the line after a time. */
export function carried(line: Line, pressure: number, source: number, stepS: number): number {
  const { rest, tauS } = restOf(line, source);
  return lagged(pressure, rest, tauS, stepS);
}

/** What is left in a line that is shut off from its source, after a time. */
export const shutIn = ({ leakS }: Line, pressure: number, stepS: number): number =>
  lagged(pressure, 0, leakS, stepS);

/** What the instrument gets: gas pressure and head of what stands in the line. */
export const atInstrument = ({ head, bubble, ambient }: Line, pressure: number): number =>
  pressure + head - bubble * (ambient / Math.max(ambient + pressure, ambient * 1e-6));
