import {
  airDensity,
  airDensitySimplified,
  deadweightPressure,
  gasHead,
  liquidHead,
  localGravity,
  manometerPressure,
  markedDeadweight,
  mercuryBarometer,
  mercuryDensity,
  STANDARD_GRAVITY_M_PER_S2,
  waterDensity,
} from '@barys/core/corrections';
import { z } from 'zod';
import { calculation } from './calculation';
import { maybe, number, shownUnit, worked } from './schemas';

const gravityMPerS2 = number.default(STANDARD_GRAVITY_M_PER_S2);
const moistAir = z.strictObject({
  temperatureC: number,
  pressurePa: number,
  relativeHumidityPercent: number,
  carbonDioxide: number.default(0.0004),
});

export const CORRECTION_CALCULATIONS = [
  calculation(
    'liquid-head',
    'Pressure at the instrument through a column of liquid, Pa',
    z.strictObject({
      pressurePa: number,
      liquidDensityKgPerM3: number,
      airDensityKgPerM3: number.default(0),
      heightM: number,
      gravityMPerS2,
    }),
    worked.extend({ correctionPa: number }),
    (given) => liquidHead(given),
  ),
  calculation(
    'gas-head',
    'Pressure at the instrument through a column of ideal gas, Pa; with a barometer the pressure is gauge',
    z.strictObject({
      pressurePa: number,
      molarMassGPerMol: number,
      temperatureC: number,
      heightM: number,
      gravityMPerS2,
      barometerPa: number.optional(),
      airDensityKgPerM3: number.optional(),
    }),
    worked.extend({
      leading: z.enum(['linear', 'exponential']),
      gasDensityKgPerM3: number,
      linearCorrectionPa: number,
      exponentialCorrectionPa: number,
      gasOnlyPa: number,
    }),
    (given) => gasHead(given),
  ),
  calculation(
    'local-gravity',
    'Gravity from latitude and height, m/s²',
    z.strictObject({ latitudeDegrees: number, heightM: number }),
    worked.extend({ seaLevelMPerS2: number, ratioToStandard: number }),
    ({ latitudeDegrees, heightM }) => localGravity(latitudeDegrees, heightM),
  ),
  calculation(
    'deadweight',
    'Pressure of a deadweight tester from its true masses, Pa',
    z.strictObject({
      massesKg: z.array(number).max(100),
      massDensityKgPerM3: number,
      airDensityKgPerM3: number,
      areaM2: number,
      areaExpansionPerK: number,
      temperatureC: number,
      distortionPerPa: number.default(0),
      gravityMPerS2,
      surfaceTensionNPerM: number.optional(),
      pistonDiameterM: number.optional(),
      barometerPa: number.optional(),
    }),
    worked.extend({ absolutePa: maybe }),
    (given) => deadweightPressure(given),
  ),
  calculation(
    'marked-deadweight',
    'True pressure of a tester whose masses are marked in pressure',
    z.strictObject({
      marked: number,
      unit: shownUnit,
      markingGravityMPerS2: number.default(STANDARD_GRAVITY_M_PER_S2),
      gravityMPerS2,
      areaExpansionPerK: number,
      temperatureC: number,
    }),
    worked.extend({ correctionPercent: number }),
    (given) => markedDeadweight(given),
  ),
  calculation(
    'manometer',
    'Pressure difference of a water or mercury manometer, Pa',
    z.strictObject({
      liquid: z.enum(['water', 'mercury']),
      readingM: number,
      temperatureC: number,
      gravityMPerS2,
      densityAboveKgPerM3: number.default(0),
      shape: z
        .discriminatedUnion('kind', [
          z.strictObject({ kind: z.literal('u-tube') }),
          z.strictObject({ kind: z.literal('well'), tubeDiameterM: number, wellDiameterM: number }),
          z.strictObject({ kind: z.literal('inclined'), angleDegrees: number }),
        ])
        .default({ kind: 'u-tube' }),
    }),
    worked.extend({ liquidDensityKgPerM3: number, hint: z.string() }),
    (given) => manometerPressure(given),
  ),
  calculation(
    'mercury-barometer',
    'Pressure by a mercury barometer with a brass scale, Pa absolute',
    z.strictObject({ readingM: number, temperatureC: number, gravityMPerS2 }),
    worked.extend({ correctedM: number }),
    (given) => mercuryBarometer(given),
  ),
  calculation(
    'water-density',
    'Density of air-free water, kg/m³',
    z.strictObject({ temperatureC: number }),
    worked,
    ({ temperatureC }) => waterDensity(temperatureC),
  ),
  calculation(
    'mercury-density',
    'Density of mercury, kg/m³',
    z.strictObject({ temperatureC: number }),
    worked,
    ({ temperatureC }) => mercuryDensity(temperatureC),
  ),
  calculation(
    'air-density',
    'Density of moist air after CIPM-2007, kg/m³',
    moistAir,
    worked.extend({ saturationPressurePa: number }),
    (given) => airDensity(given),
  ),
  calculation(
    'air-density-simplified',
    'Density of moist air by the short formula, kg/m³',
    moistAir.omit({ carbonDioxide: true }),
    worked,
    (given) => airDensitySimplified(given),
  ),
];
