import {
  convert,
  parseUnit,
  quantityOf,
  unitLabel,
  unitsOf,
  workApi,
  workConversion,
  workDensity,
  workKind,
} from '@barys/core/units';
import { z } from 'zod';
import { calculation } from './calculation';
import { anyUnit, number, pressureKind, pressureUnit, worked } from './schemas';

export const UNIT_CALCULATIONS = [
  calculation(
    'convert',
    'Convert a value between two units of one quantity',
    z.strictObject({ value: number, from: anyUnit, to: anyUnit }),
    worked,
    ({ value, from, to }) => workConversion(value, from, to),
  ),
  calculation(
    'convert-to-all',
    'Convert a value to every unit of its quantity',
    z.strictObject({ value: number, from: anyUnit }),
    z.strictObject({
      quantity: z.string(),
      values: z.array(z.strictObject({ unit: z.string(), label: z.string(), value: number })),
    }),
    ({ value, from }) => ({
      quantity: quantityOf(from),
      values: unitsOf(quantityOf(from)).map((unit) => ({
        unit,
        label: unitLabel(unit),
        value: convert(value, from, unit),
      })),
    }),
  ),
  calculation(
    'convert-kind',
    'Give a pressure in another unit and kind; absolute needs a barometer',
    z.strictObject({
      pressure: z.strictObject({ value: number, unit: pressureUnit, kind: pressureKind }),
      to: z.strictObject({ unit: pressureUnit, kind: pressureKind }),
      barometer: z.strictObject({ value: number, unit: pressureUnit }).optional(),
    }),
    worked,
    ({ pressure, to, barometer }) => workKind(pressure, to, barometer),
  ),
  calculation(
    'parse-unit',
    'Read a unit as people type it; one that can mean several is refused with the choices',
    z.strictObject({ unit: z.string().max(60) }),
    z.strictObject({ unit: z.string(), label: z.string(), kind: pressureKind.nullable() }),
    ({ unit: typed }) => {
      const { unit, kind } = parseUnit(typed);
      return { unit, label: unitLabel(unit), kind };
    },
  ),
  calculation(
    'density-from-relative',
    'Density from relative density, kg/m³',
    z.strictObject({ relativeDensity: number, waterDensityKgPerM3: number.default(1000) }),
    worked,
    (given) => workDensity(given.relativeDensity, given.waterDensityKgPerM3),
  ),
  calculation(
    'relative-from-api',
    'Relative density 60/60 °F from API gravity',
    z.strictObject({ apiGravity: number }),
    worked,
    ({ apiGravity }) => workApi(apiGravity),
  ),
];
