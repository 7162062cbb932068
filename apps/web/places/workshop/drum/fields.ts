/** The fields of Boiler drum as they are typed, and what they describe in SI. */
import type { DrumState, DrumTaps } from '@barys/core/level';
import { convert, isPressureUnit, isUnit, quantityOf, type PressureUnit, type Unit } from '@barys/core/units';
import { readNumber } from '@/ui/readNumber';
import { numberAt, orFault, type Fault } from '../typed';

export const DRUM_FIELDS = {
  /** The instrument that it is worked out for, and the job in which. */
  tag: '',
  job: '',
  height: 'mm',
  steam: 'bar',
  /** Whether pressures are typed as a gauge shows them, or absolute. */
  kind: 'gauge',
  barometer: '1013.25',
  range: 'mbar',
  taps: '600',
  zero: '0',
  full: '600',
  drop: '1500',
  high: 'lower tap',
  gravity: '9.80665',
  /** What the range is made for. */
  pressure: '40',
  leg: '40',
  /** How the drum is now. */
  nowPressure: '20',
  nowLeg: '40',
  /** What is read at the same time, % of the range of the level. */
  glass: '50',
  shown: '47',
  glassTemperature: '150',
  /** % of the range, added to what is shown; empty takes the one that makes it right here. */
  bias: '',
  why: '',
};
export type DrumFields = Readonly<typeof DRUM_FIELDS>;
export type DrumName = keyof DrumFields;

export interface DrumUnits {
  readonly height: Unit;
  readonly steam: PressureUnit;
  readonly range: PressureUnit;
}

export const unitsOfDrum = (fields: DrumFields): DrumUnits => ({
  height: isUnit(fields.height) && quantityOf(fields.height) === 'length' ? fields.height : 'mm',
  steam: isPressureUnit(fields.steam) ? fields.steam : 'bar',
  range: isPressureUnit(fields.range) ? fields.range : 'mbar',
});

/** An absolute pressure, Pa, from one that is typed as its kind says. */
function absolutePa(fields: DrumFields, name: DrumName, what: string): number {
  const typed = convert(numberAt(fields, name, what), unitsOfDrum(fields).steam, 'Pa');
  return fields.kind === 'absolute' ? typed : typed + numberAt(fields, 'barometer', 'The barometer') * 100;
}

/** @throws CoreError at the field */
export function tapsOfFields(fields: DrumFields): DrumTaps {
  const { height } = unitsOfDrum(fields);
  const metres = (name: DrumName, what: string) => convert(numberAt(fields, name, what), height, 'm');
  return {
    tapsM: metres('taps', 'The distance between the taps'),
    zeroM: metres('zero', 'The level at 0 %'),
    fullM: metres('full', 'The level at 100 %'),
    dropM: metres('drop', 'The height of the transmitter below the tap'),
    highSide: fields.high === 'leg' ? 'leg' : 'lower tap',
    gravityMPerS2: numberAt(fields, 'gravity', 'Gravity'),
  };
}

export const rangedOfFields = (fields: DrumFields): DrumState => ({
  pressurePa: absolutePa(fields, 'pressure', 'The pressure of the drum'),
  legTemperatureC: numberAt(fields, 'leg', 'The temperature of the leg'),
});
export const nowOfFields = (fields: DrumFields): DrumState => ({
  pressurePa: absolutePa(fields, 'nowPressure', 'The pressure now'),
  legTemperatureC: numberAt(fields, 'nowLeg', 'The temperature of the leg now'),
});

/** A pressure as the fields have pressures. */
export function shownPressure(fields: DrumFields, pascals: number): number {
  const { steam } = unitsOfDrum(fields);
  const barometer = fields.kind === 'absolute' ? 0 : (readNumber(fields.barometer).value ?? 0) * 100;
  return convert(pascals - barometer, 'Pa', steam);
}

const FIELD_OF: Readonly<Record<string, DrumName>> = {
  tapsM: 'taps',
  zeroM: 'zero',
  fullM: 'full',
  dropM: 'drop',
  gravityMPerS2: 'gravity',
  pressurePa: 'pressure',
  legTemperatureC: 'leg',
  temperatureC: 'glassTemperature',
  glassM: 'glass',
  shownM: 'shown',
};

/** Does work with the fields; what the core refuses is told at its field. */
export const orDrumFault = <T>(work: () => T): T | Fault<DrumName> => orFault(DRUM_FIELDS, FIELD_OF, work);
