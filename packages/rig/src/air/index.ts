/**
 * Gas in a closed line: its pressure by the mass that is in it, with a pump, an adjuster, a vent and leaks. Isothermal mass
 * balance, V dp/dt = R T (in - out); pressures are absolute, Pa. A stroke of a pump compresses faster than the gas can give
 * its heat away: it is warm at first and cools with a time constant, so that pressure falls though nothing leaks. Textbook
 * physics, from memory; sizes are inventions.
 */

export interface Line {
  /** Of the line with all that hangs on it, the adjuster in its middle, m3. */
  readonly volumeM3: number;
  /** Of one stroke of the pump at the pressure of the air, m3. */
  readonly strokeM3: number;
  /** Of one turn of the adjuster, m3, and its turns from stop to stop. */
  readonly perTurnM3: number;
  readonly turns: number;
  /** How much of the heat of a compression is there at first: 0 none, 1 all of an adiabatic one. */
  readonly warmth: number;
  readonly coolingS: number;
  /** Time constant of a leak that is laminar, s; Infinity is tight. */
  readonly leakS: number;
  /** Time constant of the open vent, s. */
  readonly ventS: number;
}

export interface LineState {
  /** p V at the temperature of the room, J: what is in the line. */
  readonly content: number;
  /** Excess of absolute temperature over the room's, as a share of it. */
  readonly warm: number;
  /** Turns of the adjuster into the line, from -turns/2 to turns/2. */
  readonly turned: number;
  /** 0 shut to 1 open. */
  readonly vent: number;
}

export const lineAtRest = ({ volumeM3 }: Line, ambientPa: number): LineState => ({
  content: ambientPa * volumeM3,
  warm: 0,
  turned: 0,
  vent: 0,
});

const volumeOf = ({ volumeM3, perTurnM3 }: Line, { turned }: LineState): number =>
  volumeM3 - turned * perTurnM3;

/** Absolute, Pa. */
export const pressureOf = (line: Line, state: LineState): number =>
  (state.content / volumeOf(line, state)) * (1 + state.warm);

/** Heat capacity ratio of air less one, over itself: (gamma - 1) / gamma. */
const ADIABATIC = 0.4 / 1.4;

/** One stroke: as much air as the stroke takes is pressed in, and what was there is warmed by its compression. */
export function stroke(line: Line, state: LineState, ambientPa: number): LineState {
  const before = pressureOf(line, state);
  const content = state.content + ambientPa * line.strokeM3;
  const ratio = content / volumeOf(line, state) / before;
  const warm = state.warm + line.warmth * (Math.pow(Math.max(1, ratio), ADIABATIC) - 1);
  return { ...state, content, warm };
}

/** Turns the adjuster, as far as its stops let it; slow enough to warm nothing. */
export const adjust = (line: Line, state: LineState, turns: number): LineState => ({
  ...state,
  turned: Math.min(line.turns / 2, Math.max(-line.turns / 2, state.turned + turns)),
});

/**
 * The line after a time: warmth goes, and what leaks and vents goes to the air with the joint time constant. Exact for any
 * step, since the content nears that of the air as an exponential.
 */
export function afterwards(line: Line, state: LineState, ambientPa: number, stepS: number): LineState {
  const rate = 1 / line.leakS + state.vent / line.ventS;
  const rest = ambientPa * volumeOf(line, state);
  return {
    ...state,
    content: rest + (state.content - rest) * Math.exp(-rate * stepS),
    warm: state.warm * Math.exp(-stepS / line.coolingS),
  };
}
