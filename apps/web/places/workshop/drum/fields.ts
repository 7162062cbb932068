/** The fields of Boiler drum as they are typed, and what they describe in SI. */
import { CoreError } from '@barys/core/errors';
import type { DrumState, DrumTaps } from '@barys/core/level';
import { convert, isPressureUnit, isUnit, quantityOf, type PressureUnit, type Unit } from '@barys/core/units';
import { readNumber } from '@/ui/readNumber';

export const DRUM_FIELDS = {
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

/** @throws CoreError at the field */
export function numberOf(fields: DrumFields, name: DrumName, what: string): number {
  const { value, error } = readNumber(fields[name]);
  if (error !== null) throw new CoreError({ code: 'not-a-number', text: fields[name] }, name);
  if (value === null)
    throw new CoreError({ code: 'missing', name: what, why: 'the range is made of it' }, name);
  return value;
}

/** An absolute pressure, Pa, from one that is typed as its kind says. */
function absolutePa(fields: DrumFields, name: DrumName, what: string): number {
  const typed = convert(numberOf(fields, name, what), unitsOfDrum(fields).steam, 'Pa');
  return fields.kind === 'absolute' ? typed : typed + numberOf(fields, 'barometer', 'The barometer') * 100;
}

/** @throws CoreError at the field */
export function tapsOfFields(fields: DrumFields): DrumTaps {
  const { height } = unitsOfDrum(fields);
  const metres = (name: DrumName, what: string) => convert(numberOf(fields, name, what), height, 'm');
  return {
    tapsM: metres('taps', 'The distance between the taps'),
    zeroM: metres('zero', 'The level at 0 %'),
    fullM: metres('full', 'The level at 100 %'),
    dropM: metres('drop', 'The height of the transmitter below the tap'),
    highSide: fields.high === 'leg' ? 'leg' : 'lower tap',
    gravityMPerS2: numberOf(fields, 'gravity', 'Gravity'),
  };
}

export const rangedOfFields = (fields: DrumFields): DrumState => ({
  pressurePa: absolutePa(fields, 'pressure', 'The pressure of the drum'),
  legTemperatureC: numberOf(fields, 'leg', 'The temperature of the leg'),
});
export const nowOfFields = (fields: DrumFields): DrumState => ({
  pressurePa: absolutePa(fields, 'nowPressure', 'The pressure now'),
  legTemperatureC: numberOf(fields, 'nowLeg', 'The temperature of the leg now'),
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
  temperatureC: 'leg',
  glassM: 'glass',
  shownM: 'shown',
};

export interface DrumFault {
  readonly message: string;
  readonly field: DrumName | null;
}

/** Does work with the fields; what the core refuses is told at its field. */
export function orDrumFault<T>(work: () => T): T | DrumFault {
  try {
    return work();
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    const field = error.field ?? '';
    return {
      message: error.message,
      field: FIELD_OF[field] ?? (field in DRUM_FIELDS ? (field as DrumName) : null),
    };
  }
}
