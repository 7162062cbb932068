import { expect } from 'vitest';
import { budget, input, type Good } from '../parts';

export const UNCERTAINTY: Good = {
  'standard-uncertainty': [{ input }, 'u', 0.1],
  specification: [{ reading: 50, floor: 0.25 }, 'value', 0.25],
  'pooled-deviation': [{ groups: [[1, 3]] }, 'degreesOfFreedom', 1],
  'coverage-factor': [{ probability: 0.9545, degreesOfFreedom: 1000000 }, 'value', expect.closeTo(2, 4)],
  'round-result': [{ value: 12.34567, expandedUncertainty: 0.0995 }, 'uncertainty', '0.10'],
  'uncertainty-budget': [budget, 'combined', 0.2],
  'monte-carlo': [{ ...budget, trials: 20000 }, 'trials', 20000],
};
