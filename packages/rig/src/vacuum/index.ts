/**
 * Vacuum gauges. Heat loss: the bridge balances the heat that the gas carries away, V² = V0² + k p / (1 + p / p1): useful over
 * decades, flat towards the pressure of the air; k depends on the gas (dry nitrogen 1), V0 drifts with the room, the excitation
 * sets k as a whole. Capacitance: linear in p, with a zero that drifts and a lowest decade that is poor until it is warm.
 * Textbook physics, from memory; sizes are inventions, pressures absolute, Pa.
 */

export interface HeatLoss {
  /** V at no pressure at 20 °C, and what a degree adds. */
  readonly v0: number;
  readonly v0PerK: number;
  /** V² for a pascal of nitrogen at the usual excitation, and where it begins to bend. */
  readonly k: number;
  readonly p1: number;
  readonly excitation: number;
}

/** How much heat a gas carries beside nitrogen; approximate, from memory. */
export const GASES = { nitrogen: 1, argon: 0.6, helium: 1.25, 'carbon dioxide': 1.05 } as const;
export type Gas = keyof typeof GASES;

/** Bridge voltage, V. */
export function bridgeOf(
  { v0, v0PerK, k, p1, excitation }: HeatLoss,
  pressurePa: number,
  { gas, temperatureC }: { readonly gas: Gas; readonly temperatureC: number },
): number {
  const zero = v0 + v0PerK * (temperatureC - 20);
  return Math.sqrt(zero ** 2 + (excitation * GASES[gas] * k * pressurePa) / (1 + pressurePa / p1));
}

/**
 * What the gauge shows of a voltage, set for nitrogen with a zero that was taken at some time; Infinity where the curve is
 * flat and says nothing more.
 * @param zeroV the bridge voltage that the gauge takes for no pressure
 */
export function shownOf({ k, p1 }: HeatLoss, volt: number, zeroV: number): number {
  const heat = Math.max(0, volt ** 2 - zeroV ** 2);
  // V² - V0² = k p / (1 + p / p1), solved for p.
  const rest = k - heat / p1;
  return rest <= 0 ? Infinity : heat / rest;
}

export interface Capacitance {
  readonly fullPa: number;
  /** Gain less one, and zero, Pa. */
  readonly gain: number;
  readonly zeroPa: number;
  /** What zero drifts until it is warm, Pa, and how long that takes, s. */
  readonly coldPa: number;
  readonly warmUpS: number;
}

/** What a capacitance gauge shows after so long with its supply on, Pa; it ends at its full scale. */
export const capacitanceOf = (
  { fullPa, gain, zeroPa, coldPa, warmUpS }: Capacitance,
  pressurePa: number,
  onS: number,
): number => Math.min(fullPa * 1.05, pressurePa * (1 + gain) + zeroPa + coldPa * Math.exp(-onS / warmUpS));
