/** The fields of Level as they are typed, and what they describe in SI. */
import { ARRANGEMENTS, type ArrangementName, type LevelMeasurement } from '@barys/core/level';
import { convert, isPressureUnit, isUnit, quantityOf, type PressureUnit, type Unit } from '@barys/core/units';
import { numberAt, orFault as orFaultAt, type Fault } from '../typed';

export const LEVEL_FIELDS = {
  /** The instrument that it is worked out for, and the job in which. */
  tag: '',
  job: '',
  arrangement: 'wet-leg',
  height: 'm',
  density: 'kgPerM3',
  pressure: 'mbar',
  liquid: '1042',
  above: '1.2',
  fill: '998',
  line: '',
  zero: '0',
  full: '4.8',
  taps: '4.8',
  drop: '1.2',
  loss: '0',
  high: 'lower tap',
  gravity: '9.80665',
  /** Where the liquid stands now. */
  level: '2.976',
  /** The scale of the display, which is set apart from the range. */
  displayLow: '0',
  displayHigh: '100',
  displayUnit: '%',
  /** The liquid as it may be one day. */
  liquidNow: '1070',
  /** Of the transmitter, per cent of span. */
  limit: '0.25',
  /** The liquid of the density: water, the number of one of the plant's, or as typed; and its temperature, °C. */
  liquidId: 'typed',
  temperature: '20',
  /** The shape of what it stands in, for volumes; its measures are in the unit of heights. */
  shape: '',
  volume: 'm³',
  diameter: '',
  length: '',
  head: '0',
  bottom: '',
  top: '',
  tall: '',
  /** Level and volume, a pair a line. */
  straps: '',
  /** The lower tap above the lowest point inside. */
  tapAbove: '0',
  /** Why a vessel is kept. */
  why: '',
};
export type LevelFields = Readonly<typeof LEVEL_FIELDS>;
export type Name = keyof LevelFields;

export const isArrangement = (text: string): text is ArrangementName => Object.hasOwn(ARRANGEMENTS, text);
export const arrangementOf = ({ arrangement }: LevelFields): ArrangementName =>
  isArrangement(arrangement) ? arrangement : 'open';

const unitIn = (text: string, quantity: string, usual: Unit): Unit =>
  isUnit(text) && quantityOf(text) === quantity ? text : usual;

export interface LevelUnits {
  readonly height: Unit;
  readonly density: Unit;
  readonly pressure: PressureUnit;
}

export const unitsOfFields = (fields: LevelFields): LevelUnits => ({
  height: unitIn(fields.height, 'length', 'm'),
  density: unitIn(fields.density, 'density', 'kgPerM3'),
  pressure: isPressureUnit(fields.pressure) ? fields.pressure : 'mbar',
});

/** The field of the form that a name of the core stands in. */
const FIELD_OF: Readonly<Record<string, Name>> = {
  liquidKgPerM3: 'liquid',
  aboveKgPerM3: 'above',
  fillKgPerM3: 'fill',
  lineKgPerM3: 'line',
  zeroM: 'zero',
  fullM: 'full',
  tapsM: 'taps',
  dropM: 'drop',
  purgeLossPa: 'loss',
  gravityMPerS2: 'gravity',
  trueLevelM: 'level',
  limitPa: 'limit',
  diameterM: 'diameter',
  lengthM: 'length',
  headDepthM: 'head',
  bottomDiameterM: 'bottom',
  topDiameterM: 'top',
  heightM: 'tall',
  temperatureC: 'temperature',
};

/** Does work with the fields; what the core refuses is told at its field. */
export const orFault = <T>(work: () => T): T | Fault<Name> => orFaultAt(LEVEL_FIELDS, FIELD_OF, work);

/** Figures of the form in SI, by the units that the form has. */
export function readerOf(fields: LevelFields) {
  const units = unitsOfFields(fields);
  return {
    metres: (name: Name, what: string) => convert(numberAt(fields, name, what), units.height, 'm'),
    density: (name: Name, what: string) => convert(numberAt(fields, name, what), units.density, 'kgPerM3'),
    pascals: (name: Name, what: string) => convert(numberAt(fields, name, what), units.pressure, 'Pa'),
  };
}

/** Which densities and heights an arrangement asks for. */
export const asksFor = (arrangement: ArrangementName) => {
  const { leg, line, above } = ARRANGEMENTS[arrangement];
  return {
    above,
    fill: leg === 'fill' || line === 'fill',
    taps: leg !== null,
    loss: arrangement === 'bubbler',
    drop: arrangement !== 'bubbler',
    line: line === 'liquid',
  };
};

/** @throws CoreError at the field that is wrong */
export function measurementOfFields(fields: LevelFields): LevelMeasurement {
  const arrangement = arrangementOf(fields);
  const asks = asksFor(arrangement);
  const { metres, density, pascals } = readerOf(fields);
  return {
    arrangement,
    liquidKgPerM3: density('liquid', 'The density of the liquid'),
    zeroM: metres('zero', 'The level at 0 %'),
    fullM: metres('full', 'The level at 100 %'),
    dropM: asks.drop ? metres('drop', 'The height of the transmitter below the tap') : 0,
    highSide: asks.taps && fields.high === 'leg' ? 'leg' : 'lower tap',
    gravityMPerS2: numberAt(fields, 'gravity', 'Gravity'),
    ...(asks.above === null ? {} : { aboveKgPerM3: density('above', `The density of the ${asks.above}`) }),
    ...(asks.fill ? { fillKgPerM3: density('fill', 'The density of the fill') } : {}),
    ...(asks.taps ? { tapsM: metres('taps', 'The distance between the taps') } : {}),
    ...(asks.loss ? { purgeLossPa: pascals('loss', 'The loss of the purge') } : {}),
    ...(asks.line && fields.line.trim() !== ''
      ? { lineKgPerM3: density('line', 'The density in the line') }
      : {}),
  };
}
