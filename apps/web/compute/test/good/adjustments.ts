import { expect } from 'vitest';
import { range, reading, tolerance, type Good } from '../parts';

export const ADJUSTMENTS: Good = {
  // Half a per cent high everywhere, of a limit of a quarter.
  'adjustment-advice': [
    {
      range,
      tolerance,
      readings: [0, 50, 100].map((percent) => ({
        ...reading,
        nominalPercent: percent,
        applied: percent,
        output: 4.08 + 0.16 * percent,
      })),
      body: { technology: 'analog' },
    },
    'lead',
    'zero',
  ],
  'next-setting': [
    { targets: [3, 15], found: [3.1, 15.1], moves: [], noise: 0, tolerance: 0.01 },
    'next.setTo',
    3,
  ],
  'plain-alternation': [{ errors: [0.2, 0.6], pivot: 0.25, tolerance: 0.008 }, 'passes', 3],
  'screw-turns': [
    { zeroPerTurn: 0.5, spanPerTurnAtLow: -0.2, spanPerTurnAtHigh: 0.8, errors: [-0.06, 0.24] },
    'span',
    expect.closeTo(-0.3, 9),
  ],
};
