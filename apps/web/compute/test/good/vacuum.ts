import { expect } from 'vitest';
import type { Good } from '../parts';

const decades = { low: 0.001, high: 1000, outputLow: 4, outputHigh: 20 };

export const VACUUM: Good = {
  'vacuum-error': [{ reference: 100, indicated: 112 }, 'percentOfReference', 12],
  'decade-limit': [{ decades: 1 }, 'upperPercent', 900],
  'percent-limit-in-decades': [{ percent: 900 }, 'upperDecades', 1],
  'logarithmic-output': [{ range: decades, pressure: 1 }, 'value', expect.closeTo(12, 12)],
  'logarithmic-pressure': [{ range: decades, output: 12 }, 'value', expect.closeTo(1, 12)],
};
