/**
 * A digital gauge: straight lines between what it holds for near vacuum, zero, middle and full scale. A calibration in the
 * field replaces one of them after a wait, counts, and keeps the set before; the factory's set is always there. Common
 * practice, from memory.
 */

export const POINTS = ['near vacuum', 'zero', 'middle', 'full'] as const;
export type PointName = (typeof POINTS)[number];

/** What the sensor gives at a pressure that is known. */
interface Held {
  readonly raw: number;
  readonly pressure: number;
}
type Table = Readonly<Partial<Record<PointName, Held>>>;

export interface DigitalGauge {
  /** What the sensor gives of a pressure: offset, gain less one, and a bow that is largest in the middle. */
  readonly offset: number;
  readonly gain: number;
  readonly bow: number;
  readonly full: number;
  readonly resolution: number;
  /** How long a calibration has to stand still, s. */
  readonly waitS: number;
}

export interface DigitalState {
  readonly table: Table;
  readonly lastField: Table | null;
  readonly fieldCalibrations: number;
  readonly steadyS: number;
}

export const factory = ({ full }: DigitalGauge): Table => ({
  zero: { raw: 0, pressure: 0 },
  full: { raw: full, pressure: full },
});

export const digitalAtRest = (gauge: DigitalGauge): DigitalState => ({
  table: factory(gauge),
  lastField: null,
  fieldCalibrations: 0,
  steadyS: 0,
});

/** What the sensor gives, in the unit of the pressure. */
export function rawOf({ offset, gain, bow, full }: DigitalGauge, applied: number): number {
  const x = applied / full;
  return offset + applied * (1 + gain) + bow * full * 4 * x * (1 - x);
}

/** The pressure that the gauge shows, to its resolution; beyond its points the outer lines go on. */
export function readDigital(gauge: DigitalGauge, { table }: DigitalState, applied: number): number {
  const raw = rawOf(gauge, applied);
  const held = POINTS.flatMap((name) => table[name] ?? []).sort((a, b) => a.raw - b.raw);
  const above = Math.min(
    held.length - 1,
    Math.max(
      1,
      held.findIndex((one) => one.raw >= raw),
    ),
  );
  const upper = raw > (held.at(-1)?.raw ?? 0) ? held.length - 1 : above;
  const [low, high] = [held[upper - 1], held[upper]];
  if (low === undefined || high === undefined) return NaN;
  const shown = low.pressure + ((raw - low.raw) / (high.raw - low.raw)) * (high.pressure - low.pressure);
  return Math.round(shown / gauge.resolution) * gauge.resolution;
}

export const wait = (state: DigitalState, seconds: number): DigitalState => ({
  ...state,
  steadyS: state.steadyS + seconds,
});

/**
 * Calibrates a point in the field at a pressure that is said to be applied; refused before it stood still long enough.
 * @param applied what is there
 * @param said what is typed in
 */
export function calibrate(
  gauge: DigitalGauge,
  state: DigitalState,
  point: PointName,
  { applied, said }: { readonly applied: number; readonly said: number },
): DigitalState | 'not steady yet' {
  if (state.steadyS < gauge.waitS) return 'not steady yet';
  return {
    table: { ...state.table, [point]: { raw: rawOf(gauge, applied), pressure: said } },
    lastField: state.table,
    fieldCalibrations: state.fieldCalibrations + 1,
    steadyS: 0,
  };
}

export const restore = (
  gauge: DigitalGauge,
  state: DigitalState,
  set: 'factory' | 'last field',
): DigitalState => ({
  ...state,
  table: set === 'factory' ? factory(gauge) : (state.lastField ?? state.table),
});
