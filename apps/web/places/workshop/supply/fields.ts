/** The fields of Loop supply as they are typed, and what they describe. */
import { areaOfGauge, type LoopSupply } from '@barys/core/loop';
import { convert, isUnit, quantityOf, type Unit } from '@barys/core/units';
import { numberAt, orFault, type Fault } from '../typed';

export const SUPPLY_FIELDS = {
  /** The instrument that it is worked out for. */
  tag: '',
  supply: '24',
  liftOff: '12',
  by: 'area',
  area: '1',
  gauge: '18',
  length: '500',
  lengthUnit: 'm',
  temperature: '40',
  resistor: '250',
  barrier: '0',
  drop: '0',
  other: '0',
  failure: '21',
  /** What was measured at the terminals, V, and at which current; empty where nothing was. */
  measured: '',
  at: '12',
  /** Of the resistor, %; what the receiver takes itself, ohms, empty where nothing. */
  tolerance: '0.1',
  input: '',
};
export type SupplyFields = Readonly<typeof SUPPLY_FIELDS>;
export type SupplyName = keyof SupplyFields;

export const lengthUnitOf = ({ lengthUnit }: SupplyFields): Unit =>
  isUnit(lengthUnit) && quantityOf(lengthUnit) === 'length' ? lengthUnit : 'm';

/** @throws CoreError at the field */
export const supplyOf = (fields: SupplyFields): LoopSupply => ({
  supplyV: numberAt(fields, 'supply', 'The supply'),
  liftOffV: numberAt(fields, 'liftOff', 'The lift-off voltage'),
  wire: {
    lengthM: convert(numberAt(fields, 'length', 'The length of the cable'), lengthUnitOf(fields), 'm'),
    areaMm2:
      fields.by === 'gauge'
        ? areaOfGauge(numberAt(fields, 'gauge', 'The wire gauge'))
        : numberAt(fields, 'area', 'The area of a conductor'),
    temperatureC: numberAt(fields, 'temperature', 'The temperature of the cable'),
  },
  senseOhm: numberAt(fields, 'resistor', 'The resistor'),
  barrierOhm: numberAt(fields, 'barrier', 'The resistance of the barrier'),
  barrierDropV: numberAt(fields, 'drop', 'The voltage of the barrier'),
  otherOhm: numberAt(fields, 'other', 'Other resistance'),
});

const FIELD_OF: Readonly<Record<string, SupplyName>> = {
  supplyV: 'supply',
  liftOffV: 'liftOff',
  lengthM: 'length',
  areaMm2: 'area',
  temperatureC: 'temperature',
  senseOhm: 'resistor',
  barrierOhm: 'barrier',
  barrierDropV: 'drop',
  otherOhm: 'other',
  failureMilliamp: 'failure',
  measuredV: 'measured',
  atMilliamp: 'at',
  resistorOhm: 'resistor',
  tolerancePercent: 'tolerance',
  inputOhm: 'input',
};

/** Does work with the fields; what the core refuses is told at its field. */
export const orSupplyFault = <T>(work: () => T): T | Fault<SupplyName> =>
  orFault(SUPPLY_FIELDS, FIELD_OF, work);
