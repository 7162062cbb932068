/** The fields of Orifice plate as they are typed, and what they describe in SI. */
import { TAPS, type Fluid, type Plate, type Taps } from '@barys/core/flow';
import {
  convert,
  convertPressure,
  isPressureUnit,
  isUnit,
  quantityOf,
  unitLabel,
  type PressureUnit,
  type Unit,
} from '@barys/core/units';
import { numberAt, orFault, type Fault } from '../typed';

/** What is worked out from the other two. */
export const FINDS = ['flow', 'differential', 'bore'] as const;
export type Find = (typeof FINDS)[number];

export const ORIFICE_FIELDS = {
  /** The instrument that it is worked out for. */
  tag: '',
  find: 'flow',
  taps: 'flange',
  pipe: '102.26',
  bore: '61.356',
  fluid: 'liquid',
  kind: 'absolute',
  pressureUnit: 'kPa',
  barometer: '1013.25',
  pressure: '500',
  density: '998.2',
  /** mPa s. */
  viscosity: '1.002',
  exponent: '1.4',
  differential: '20',
  differentialUnit: 'kPa',
  flow: '44',
  flowUnit: 'm3PerH',
  /** Expanded, per cent of each. */
  uPipe: '0.4',
  uBore: '0.07',
  uDifferential: '0.5',
  uDensity: '0.1',
};
export type OrificeFields = Readonly<typeof ORIFICE_FIELDS>;
export type OrificeName = keyof OrificeFields;

export const findOf = ({ find }: OrificeFields): Find => FINDS.find((one) => one === find) ?? 'flow';
export const tapsOf = ({ taps }: OrificeFields): Taps => TAPS.find((one) => one === taps) ?? 'flange';

const pressureUnit = (text: string): PressureUnit => (isPressureUnit(text) ? text : 'kPa');
export const isFlowUnit = (text: string): text is Unit =>
  isUnit(text) && (quantityOf(text) === 'volumeFlow' || quantityOf(text) === 'massFlow');

export const unitsOfOrifice = (fields: OrificeFields) => ({
  pressure: pressureUnit(fields.pressureUnit),
  differential: pressureUnit(fields.differentialUnit),
  flow: isFlowUnit(fields.flowUnit) ? fields.flowUnit : ('m3PerH' as const),
});

export const metresAt = (fields: OrificeFields, name: 'pipe' | 'bore', what: string): number =>
  numberAt(fields, name, what) / 1000;

/** @throws CoreError at the field */
export const plateOf = (fields: OrificeFields): Plate => ({
  pipeM: metresAt(fields, 'pipe', 'The diameter of the pipe'),
  boreM: metresAt(fields, 'bore', 'The diameter of the bore'),
  taps: tapsOf(fields),
});

/** @throws CoreError at the field */
export function fluidOf(fields: OrificeFields): Fluid {
  const { pressure } = unitsOfOrifice(fields);
  const typed = convertPressure(numberAt(fields, 'pressure', 'The pressure upstream'), pressure, 'Pa');
  const barometer = fields.kind === 'absolute' ? 0 : numberAt(fields, 'barometer', 'The barometer') * 100;
  return {
    pressurePa: typed + barometer,
    densityKgPerM3: numberAt(fields, 'density', 'The density'),
    viscosityPaS: numberAt(fields, 'viscosity', 'The viscosity') / 1000,
    isentropicExponent:
      fields.fluid === 'gas' ? numberAt(fields, 'exponent', 'The isentropic exponent') : null,
  };
}

/** @throws CoreError at the field */
export const differentialOf = (fields: OrificeFields): number =>
  convertPressure(
    numberAt(fields, 'differential', 'The differential'),
    unitsOfOrifice(fields).differential,
    'Pa',
  );

/** kg/s of a flow that is typed as a mass or as a volume upstream. @throws CoreError at the field */
export function massFlowOf(fields: OrificeFields, { densityKgPerM3 }: Fluid): number {
  const { flow } = unitsOfOrifice(fields);
  const typed = numberAt(fields, 'flow', 'The flow');
  return quantityOf(flow) === 'massFlow'
    ? convert(typed, flow, 'kgPerS')
    : convert(typed, flow, 'm3PerS') * densityKgPerM3;
}

/** A mass flow in the unit of the fields. */
export function shownFlow(fields: OrificeFields, { densityKgPerM3 }: Fluid, massFlow: number): number {
  const { flow } = unitsOfOrifice(fields);
  return quantityOf(flow) === 'massFlow'
    ? convert(massFlow, 'kgPerS', flow)
    : convert(massFlow / densityKgPerM3, 'm3PerS', flow);
}

export const labelsOf = (fields: OrificeFields) => {
  const { differential, flow, pressure } = unitsOfOrifice(fields);
  return { differential: unitLabel(differential), flow: unitLabel(flow), pressure: unitLabel(pressure) };
};

const FIELD_OF: Readonly<Record<string, OrificeName>> = {
  pipeM: 'pipe',
  boreM: 'bore',
  pressurePa: 'pressure',
  densityKgPerM3: 'density',
  viscosityPaS: 'viscosity',
  isentropicExponent: 'exponent',
  differentialPa: 'differential',
  massFlow: 'flow',
};

/** Does work with the fields; what the core refuses is told at its field. */
export const orOrificeFault = <T>(work: () => T): T | Fault<OrificeName> =>
  orFault(ORIFICE_FIELDS, FIELD_OF, work);
