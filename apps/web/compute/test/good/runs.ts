import { expect } from 'vitest';
import { range, reading, tolerance, type Good } from '../parts';

export const RUNS: Good = {
  'evaluate-run': [{ range, tolerance, readings: [reading] }, 'verdict', 'within'],
  'judge-reading': [{ range, tolerance, reading: { ...reading, output: 4.0401 } }, 'verdict', 'outside'],
  'error-terms': [{ range, applied: 50, output: 12.16 }, 'scaleDivisions', null],
  'accepted-output': [{ range, tolerance, applied: 50 }, 'highest', 12.04],
  'error-uncertainty': [{ range, applied: 50, standardInput: 0.02 }, 'value', expect.closeTo(0.0032, 9)],
  'accuracy-ratio': [{ range, tolerance, standardAccuracyInput: 0.05 }, 'value', 5],
};
