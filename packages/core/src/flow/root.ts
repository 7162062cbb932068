/**
 * Flow by differential pressure: the flow goes with the root of the differential, q = q_max sqrt(dp / dp_max). A differential
 * below zero is no flow, and nothing is cut above the range (common practice).
 */
import { requireBetween, requireFinite, requirePositive } from '../errors';
import { share, type Transfer } from '../signal';

/** Full scale of a primary element, by its data sheet; flow and differential each in a unit of their own. */
export interface FlowScale {
  readonly flowMax: number;
  readonly differentialMax: number;
}

export function checkScale({ flowMax, differentialMax }: FlowScale): void {
  requirePositive('The flow at full scale', flowMax, 'flowMax');
  requirePositive('The differential at full scale', differentialMax, 'differentialMax');
}

const ROOT: Transfer = { kind: 'square-root' };

/**
 * Flow that a differential stands for.
 * @param transfer the root with its low-flow part; plain where nothing is said. A flow exactly at a cut-off is kept
 * @throws CoreError `not-positive`, `not-finite`
 */
export function flowAt(scale: FlowScale, differential: number, transfer: Transfer = ROOT): number {
  checkScale(scale);
  requireFinite('The differential', differential, 'differential');
  return scale.flowMax * share(transfer, differential / scale.differentialMax);
}

/**
 * Differential of a flow, without any low-flow part: q below zero has none.
 * @throws CoreError `not-positive`, `not-finite`
 */
export function differentialAt(scale: FlowScale, flow: number): number {
  checkScale(scale);
  requireFinite('The flow', flow, 'flow');
  return flow <= 0 ? 0 : scale.differentialMax * (flow / scale.flowMax) ** 2;
}

export interface FlowError {
  /** Per cent of the flow itself; null at no flow. */
  readonly percentOfFlow: number | null;
  /** The same by the slope of the root there, which is wrong where it is steep; null at no flow. */
  readonly linearPercentOfFlow: number | null;
  /** Per cent of full-scale flow. */
  readonly percentOfMax: number;
}

const ROUNDING = 1e-12;

/**
 * What an error of the differential makes of the flow that is shown: sqrt(t + e) - sqrt(t), t the share of the differential.
 * @param flowPercent true flow, per cent of full scale, from 0
 * @param errorPercent of the differential, per cent of its span
 * @throws CoreError `out-of-bounds`, `not-finite`
 */
export function flowErrorAt(flowPercent: number, errorPercent: number): FlowError {
  requireBetween('The flow', flowPercent, [0, 1000, '% of full scale'], 'flowPercent');
  requireFinite('The error of the differential', errorPercent, 'errorPercent');
  const t = (flowPercent / 100) ** 2;
  const rest = t + errorPercent / 100;
  // What cancels leaves the last digit behind, of which a root would make a flow.
  const shown = rest <= ROUNDING * t ? 0 : Math.sqrt(rest);
  const percentOfMax = (shown - flowPercent / 100) * 100;
  return {
    percentOfMax,
    percentOfFlow: flowPercent === 0 ? null : (percentOfMax / flowPercent) * 100,
    linearPercentOfFlow: flowPercent === 0 ? null : errorPercent / (2 * t),
  };
}

/**
 * How far below full scale flow is still shown: full scale over the cut-off. 10 % is 10 : 1, 12 % about 8 : 1 (common practice).
 * @returns null where nothing is cut
 */
export function rangeability(cutOffPercentOfFlow: number): number | null {
  requireBetween('The low-flow cut-off', cutOffPercentOfFlow, [0, 100, '%'], 'cutOffPercentOfFlow');
  return cutOffPercentOfFlow === 0 ? null : 100 / cutOffPercentOfFlow;
}

/** Ideal gas: absolute pressures in one unit, temperatures in °C. */
export interface GasState {
  readonly pressure: number;
  readonly temperatureC: number;
}

const ABSOLUTE_ZERO_C = -273.15;

/**
 * What the flow that is shown is multiplied by where the gas is not as the range was made for: sqrt(rho / rho_ref) with
 * rho = p / T, for mass flow and for flow at standard conditions (ideal gas of constant composition).
 * @throws CoreError `not-positive` for a pressure that is not absolute or a temperature below absolute zero
 */
export function densityFactor(now: GasState, design: GasState): number {
  const kelvin = ({ temperatureC }: GasState) => temperatureC - ABSOLUTE_ZERO_C;
  requirePositive('The absolute pressure', now.pressure, 'pressure');
  requirePositive('The absolute pressure of the design', design.pressure, 'designPressure');
  requirePositive('The absolute temperature', kelvin(now), 'temperatureC');
  requirePositive('The absolute temperature of the design', kelvin(design), 'designTemperatureC');
  return Math.sqrt((now.pressure * kelvin(design)) / (design.pressure * kelvin(now)));
}

/** Error of the flow that is shown without the correction, per cent of the true flow. */
export const uncompensatedPercent = (factor: number): number => (1 / factor - 1) * 100;
