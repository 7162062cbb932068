import { range, type Good } from '../parts';

const root = { ...range, transferFunction: { kind: 'square-root' } };

export const SIGNALS: Good = {
  'expected-output': [{ range: root, applied: 25 }, 'value', 12],
  'applied-for-output': [{ range: root, output: 12 }, 'value', 25],
  'expected-table': [{ range, stepPercent: 25 }, 'rows.length', 5],
  'output-sensitivity': [{ range, applied: 3 }, 'value', 0.16],
  'displayed-value': [{ range, display: { low: 0, high: 8 }, output: 12 }, 'value', 4],
  'signal-region': [{ current: 3.7 }, 'region', 'undefined-low'],
  'test-points': [
    { range, procedure: { points: { in: 'percent-of-input', values: [0, 50, 100] } } },
    'points.length',
    5,
  ],
  'wait-for-damping': [{ dampingS: 1, sharePercent: 100 }, 'value', 0],
  'is-settled': [{ samples: [], rule: { waitS: 1, holdS: 1, band: 0.1 } }, 'isSettled', false],
};
