import { expect } from 'vitest';
import { limits, type Good } from '../parts';

export const CONFORMITY: Good = {
  'test-accuracy-ratio': [{ tolerance: 0.25, standardAccuracy: 0.05 }, 'value', 5],
  'test-uncertainty-ratio': [{ ...limits, expandedUncertainty: 0.01 }, 'value', 4],
  'guard-band': [
    { ...limits, expandedUncertainty: 0.012, measured: [0.028, 0.0281] },
    'decisions',
    ['accept', 'reject'],
  ],
  'method-6': [{ ...limits, expandedUncertainty: 0.005, measured: [0.04] }, 'multiplier', 0],
  statement: [{ ...limits, expandedUncertainty: 0.01, measured: 0.035 }, 'statement', 'conditional pass'],
  'specific-risk': [{ upper: 10, measured: 10, standardUncertainty: 0.15 }, 'value', 0.5],
  posterior: [{ prior: { mean: 0, sd: 1 }, measured: 2, standardUncertainty: 1 }, 'mean', 1],
  'global-risk': [
    { tolerance: limits, acceptance: limits, prior: { mean: 0, sd: 0.02 }, standardUncertainty: 0.005 },
    'inTolerance',
    expect.closeTo(0.9545, 4),
  ],
  'prior-from-reliability': [{ tolerance: 1, inTolerance: 0.95, standardUncertainty: 0.1 }, 'mean', 0],
  'acceptance-for-risk': [
    { tolerance: 1, standardUncertainty: 1 / 3, prior: { mean: 0, sd: 0.6 } },
    'applied',
    expect.closeTo(0.9253, 4),
  ],
  'acceptance-for-specific-risk': [{ upper: 10, standardUncertainty: 0.05, risk: 0.5 }, 'value', 10],
};
