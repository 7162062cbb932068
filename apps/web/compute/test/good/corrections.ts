import { expect } from 'vitest';
import type { Good } from '../parts';

const moistAir = { temperatureC: 20, pressurePa: 101325, relativeHumidityPercent: 50 };

export const CORRECTIONS: Good = {
  'liquid-head': [{ pressurePa: 1000, liquidDensityKgPerM3: 1000, heightM: 0 }, 'value', 1000],
  'gas-head': [{ pressurePa: 1e5, molarMassGPerMol: 28, temperatureC: 20, heightM: 0 }, 'value', 1e5],
  'local-gravity': [{ latitudeDegrees: 0, heightM: 0 }, 'value', 9.780327],
  deadweight: [
    {
      massesKg: [5, 5, 5],
      massDensityKgPerM3: 7920,
      airDensityKgPerM3: 0,
      areaM2: 1e-4,
      areaExpansionPerK: 0,
      temperatureC: 20,
    },
    'value',
    expect.closeTo(1470997.5, 6),
  ],
  'marked-deadweight': [{ marked: 100, areaExpansionPerK: 0, temperatureC: 20 }, 'value', 100],
  manometer: [{ liquid: 'mercury', readingM: 0.76, temperatureC: 0 }, 'liquidDensityKgPerM3', 13595.1],
  'mercury-barometer': [{ readingM: 0.76, temperatureC: 0 }, 'correctedM', 0.76],
  'water-density': [{ temperatureC: 20 }, 'value', expect.closeTo(998.2067, 3)],
  'mercury-density': [{ temperatureC: 0 }, 'value', 13595.1],
  'air-density': [moistAir, 'value', expect.closeTo(1.1993145, 6)],
  'air-density-simplified': [moistAir, 'value', expect.closeTo(1.1992943, 7)],
};
