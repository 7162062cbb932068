/**
 * A smart transmitter: the sensor, what the processor makes of it, and the output stage, each with its own errors and its
 * own trims. PV = a raw + b by zero, lower and upper trim; % = (PV - LRV) / span through the transfer function, damped
 * apart for output and display; I = gain (4 + 16 %) + offset by the trim of 4 and 20 mA. It saturates, says failure beyond,
 * and can be held at a current. Re-ranging moves what 4 and 20 mA mean and cures no sensor; a trim of the output hides
 * everything behind it. Common practice, from memory; sizes are inventions.
 */
import { share, type Transfer } from '@barys/core/signal';
import { nextNoise } from '../chance';
import { lagged } from '../lag';

export interface Sensor {
  /** What the raw value has too much, in the unit of the pressure, and its gain less one. */
  readonly offset: number;
  readonly gain: number;
  readonly upperLimit: number;
  /** Farthest that zero can be trimmed, and a span, share of the upper limit. */
  readonly trimLimit: number;
  /** For 10 K from 20 °C: of zero in the unit of the pressure, of the gain as a share. */
  readonly zeroPer10K?: number;
  readonly spanPer10K?: number;
  readonly noise: { readonly sigma: number; readonly tauS: number };
}

export interface Stage {
  /** mA, and gain less one. */
  readonly offset: number;
  readonly gain: number;
  readonly saturation: readonly [low: number, high: number];
  readonly alarmMilliamp: number;
}

export interface Settings {
  readonly lrv: number;
  readonly urv: number;
  readonly transfer: Transfer;
  readonly dampingS: number;
  readonly displayDampingS: number;
  readonly displayLow: number;
  readonly displayHigh: number;
  readonly drivenBy: 'pressure' | 'scaled variable';
  /** Transfer function of the scaled variable, over the same range. */
  readonly scaledTransfer: Transfer;
  readonly isProtected: boolean;
}

export interface Smart {
  readonly sensor: Sensor;
  readonly stage: Stage;
}

export interface SmartState {
  readonly settings: Settings;
  /** PV = slope raw + shift. */
  readonly slope: number;
  readonly shift: number;
  /** I = stageSlope ideal + stageShift, before the errors of the stage. */
  readonly stageSlope: number;
  readonly stageShift: number;
  readonly noise: number;
  /** The shares of output and display, damped. */
  readonly output: number;
  readonly display: number;
  /** mA; null where the output follows the pressure. */
  readonly held: number | null;
  readonly isFailed: boolean;
  readonly raw: number;
}

/** As it left the factory. */
export const fromFactory = (settings: Settings): SmartState => ({
  settings,
  slope: 1,
  shift: 0,
  stageSlope: 1,
  stageShift: 0,
  noise: 0,
  output: 0,
  display: 0,
  held: null,
  isFailed: false,
  raw: 0,
});

export type Refused = 'write protected' | 'beyond the trim limit' | 'no span';
export type Written = SmartState | Refused;

const written = (state: SmartState, work: () => Written): Written =>
  state.settings.isProtected ? 'write protected' : work();

/** The digital value, in the unit of the pressure. */
export const processValue = ({ slope, shift, raw }: SmartState): number => slope * raw + shift;

export const configure = (state: SmartState, settings: Partial<Settings>): Written => {
  // The protection itself is a switch at the instrument, not a setting that is written.
  if (Object.keys(settings).every((key) => key === 'isProtected'))
    return { ...state, settings: { ...state.settings, ...settings } };
  return written(state, () => {
    const next = { ...state.settings, ...settings };
    return next.lrv === next.urv || next.displayLow === next.displayHigh
      ? 'no span'
      : { ...state, settings: next };
  });
};

/** Makes what is there read as zero. */
export const trimZero = ({ sensor }: Smart, state: SmartState): Written =>
  written(state, () => {
    const shift = state.shift - processValue(state);
    return Math.abs(shift) > sensor.trimLimit * sensor.upperLimit
      ? 'beyond the trim limit'
      : { ...state, shift };
  });

/**
 * Makes the sensor read what is said to be applied, by lower and upper trim: a straight line through both.
 * @param lower what was raw and what was applied at the lower point
 */
export const trimSensor = (
  { sensor }: Smart,
  state: SmartState,
  lower: { readonly raw: number; readonly applied: number },
  upper: { readonly raw: number; readonly applied: number },
): Written =>
  written(state, () => {
    if (upper.raw === lower.raw || upper.applied === lower.applied) return 'no span';
    const slope = (upper.applied - lower.applied) / (upper.raw - lower.raw);
    const shift = lower.applied - slope * lower.raw;
    const isFar =
      Math.abs(slope - 1) > sensor.trimLimit || Math.abs(shift) > sensor.trimLimit * sensor.upperLimit;
    return isFar ? 'beyond the trim limit' : { ...state, slope, shift };
  });

/** Makes the output stage put out 4 and 20 mA, from what was measured while it was told to. */
export const trimOutput = (state: SmartState, measured4: number, measured20: number): Written =>
  written(state, () => {
    if (measured20 - measured4 < 1) return 'no span';
    // Gain and offset of the stage from both measurements, and the line that undoes them.
    const told = (milliamp: number) => state.stageSlope * milliamp + state.stageShift;
    const gain = (measured20 - measured4) / (told(20) - told(4));
    const offset = measured4 - gain * told(4);
    return { ...state, stageSlope: 1 / gain, stageShift: -offset / gain };
  });

export const restoreFactory = (state: SmartState): Written =>
  written(state, () => ({ ...state, slope: 1, shift: 0, stageSlope: 1, stageShift: 0 }));

/** Holds the output at a current, or lets it go with null. */
export const hold = (state: SmartState, milliamp: number | null): SmartState => ({
  ...state,
  held: milliamp,
});

/** The transmitter after a time at a pressure that is held. */
export function stepSmart(
  { sensor }: Smart,
  state: SmartState,
  {
    applied,
    stepS,
    normal,
    temperatureC = 20,
  }: {
    readonly applied: number;
    readonly stepS: number;
    readonly normal: number;
    readonly temperatureC?: number;
  },
): SmartState {
  const { settings } = state;
  const noise = nextNoise(state.noise, sensor.noise, stepS, normal);
  const warm = (temperatureC - 20) / 10;
  const gain = 1 + sensor.gain + (sensor.spanPer10K ?? 0) * warm;
  const offset = sensor.offset + (sensor.zeroPer10K ?? 0) * warm;
  const now = { ...state, noise, raw: applied * gain + offset + noise };
  const t = (processValue(now) - settings.lrv) / (settings.urv - settings.lrv);
  const scaled = share(settings.scaledTransfer, t);
  const driving = settings.drivenBy === 'pressure' ? t : scaled;
  return {
    ...now,
    output: lagged(state.output, share(settings.transfer, driving), settings.dampingS, stepS),
    display: lagged(state.display, scaled, settings.displayDampingS, stepS),
  };
}

/** mA at the terminals. */
export function currentOf({ stage }: Smart, state: SmartState): number {
  if (state.isFailed) return stage.alarmMilliamp;
  const [low, high] = stage.saturation;
  const ideal = state.held ?? Math.min(high, Math.max(low, 4 + 16 * state.output));
  return (state.stageSlope * ideal + state.stageShift) * (1 + stage.gain) + stage.offset;
}

export const displayOf = ({ settings, display }: SmartState): number =>
  settings.displayLow + display * (settings.displayHigh - settings.displayLow);
