/** The fields of Flow as they are typed, and what they describe. */
import type { FlowScale, GasState, NoisyFlow } from '@barys/core/flow';
import { positionHead } from '@barys/core/setup';
import type { Transfer } from '@barys/core/signal';
import { convertPressure, isPressureUnit, type PressureUnit } from '@barys/core/units';
import { numberAt, orFault, type Fault } from '../typed';

export const FLOW_FIELDS = {
  /** The instrument that it is worked out for. */
  tag: '',
  differentialMax: '250',
  unit: 'mbar',
  flowMax: '320',
  flowUnit: 'm³/h',
  /** Per cent of flow: below it nothing is shown, or a straight line from zero. */
  cutOff: '12',
  linearTo: '12',
  step: '10',
  evenIn: 'flow',
  applied: '',
  /** Error of the differential at zero, in its unit, and what a tilt of the body adds to it. */
  zero: '0.1',
  tilt: '0',
  distance: '60',
  fill: '930',
  /** Of a gas: what it has now, and what the range was made for. */
  kind: 'gauge',
  pressureUnit: 'bar',
  barometer: '1013.25',
  pressure: '5',
  temperature: '40',
  designPressure: '6',
  designTemperature: '20',
  indicated: '200',
  counts: '3600',
  /** Noise of the differential, % of its span, and how long it is like itself, s. */
  noise: '1',
  noiseTime: '0.5',
  damping: '2',
  at: '25',
  seed: '1',
};
export type FlowFields = Readonly<typeof FLOW_FIELDS>;
export type FlowName = keyof FlowFields;

export const unitOf = ({ unit }: FlowFields): PressureUnit => (isPressureUnit(unit) ? unit : 'mbar');
export const gasUnitOf = ({ pressureUnit }: FlowFields): PressureUnit =>
  isPressureUnit(pressureUnit) ? pressureUnit : 'bar';

/** @throws CoreError at the field */
export const scaleOf = (fields: FlowFields): FlowScale => ({
  flowMax: numberAt(fields, 'flowMax', 'The flow at full scale'),
  differentialMax: numberAt(fields, 'differentialMax', 'The differential at full scale'),
});

/** The root cut to zero, and the root with a linear start. */
export const transfersOf = (fields: FlowFields): { readonly cut: Transfer; readonly linear: Transfer } => ({
  cut: { kind: 'square-root-cut-off', cutOffPercentOfFlow: numberAt(fields, 'cutOff', 'The cut-off') },
  linear: {
    kind: 'square-root-linear-start',
    linearToPercentOfFlow: numberAt(fields, 'linearTo', 'The end of the linear start'),
  },
});

/** What zero is off by, in the unit of the differential: as typed, and by the tilt of the body. */
export function zeroOf(fields: FlowFields): { readonly typed: number; readonly position: number } {
  const pascals = positionHead(
    numberAt(fields, 'fill', 'The density of the fill'),
    numberAt(fields, 'distance', 'The distance of the diaphragms') / 1000,
    numberAt(fields, 'tilt', 'The tilt'),
  );
  return {
    typed: numberAt(fields, 'zero', 'The error at zero'),
    position: convertPressure(pascals, 'Pa', unitOf(fields)),
  };
}

/** Absolute pressures in the unit of the gas. */
export function gasOf(fields: FlowFields): { readonly now: GasState; readonly design: GasState } {
  const barometer =
    fields.kind === 'absolute'
      ? 0
      : convertPressure(numberAt(fields, 'barometer', 'The barometer'), 'hPa', gasUnitOf(fields));
  return {
    now: {
      pressure: numberAt(fields, 'pressure', 'The pressure') + barometer,
      temperatureC: numberAt(fields, 'temperature', 'The temperature'),
    },
    design: {
      pressure: numberAt(fields, 'designPressure', 'The pressure of the design') + barometer,
      temperatureC: numberAt(fields, 'designTemperature', 'The temperature of the design'),
    },
  };
}

export const noisyOf = (fields: FlowFields, transfer: Transfer): NoisyFlow => ({
  flowPercent: numberAt(fields, 'at', 'The flow'),
  noisePercent: numberAt(fields, 'noise', 'The noise'),
  noiseTimeS: numberAt(fields, 'noiseTime', 'The time of the noise'),
  dampingS: numberAt(fields, 'damping', 'The damping'),
  transfer,
  seed: Math.max(1, Math.round(numberAt(fields, 'seed', 'The seed'))),
});

/** Names of the core, by the fields that they stand in. */
const FIELD_OF: Readonly<Record<string, FlowName>> = {
  cutOffPercentOfFlow: 'cutOff',
  'transferFunction.cutOffPercentOfFlow': 'cutOff',
  'transferFunction.linearToPercentOfFlow': 'linearTo',
  fillDensity: 'fill',
  distanceM: 'distance',
  tiltDegrees: 'tilt',
  designTemperatureC: 'designTemperature',
  temperatureC: 'temperature',
  countsPerTime: 'counts',
  flowPercent: 'at',
  noisePercent: 'noise',
  noiseTimeS: 'noiseTime',
  dampingS: 'damping',
  differential: 'applied',
};

/** Does work with the fields; what the core refuses is told at its field. */
export const orFlowFault = <T>(work: () => T): T | Fault<FlowName> => orFault(FLOW_FIELDS, FIELD_OF, work);
