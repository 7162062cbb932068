import type { Good } from '../parts';

export const UNITS: Good = {
  convert: [{ value: 25, from: 'degC', to: 'degF' }, 'value', 77],
  'convert-to-all': [{ value: 1, from: 'bar' }, 'quantity', 'pressure'],
  'convert-kind': [
    {
      pressure: { value: 40, unit: 'kPa', kind: 'absolute' },
      to: { unit: 'mbar', kind: 'gauge' },
      barometer: { value: 100.2, unit: 'kPa' },
    },
    'value',
    -602,
  ],
  'parse-unit': [{ unit: 'in H2O @ 68F' }, 'unit', 'inH2OAt68F'],
  'density-from-relative': [{ relativeDensity: 0.85 }, 'value', 850],
  'relative-from-api': [{ apiGravity: 10 }, 'value', 1],
};
