import { expect } from 'vitest';
import type { Good } from '../parts';

export const SETUP: Good = {
  'compare-setup': [
    {
      wanted: { inputUnit: 'mbar', lrv: 0, urv: 100, tolerancePercentOfSpan: 0.25 },
      read: { inputUnit: 'kPa', lrv: 0, urv: 12.5 },
    },
    'differences.1.percentOfSpan',
    expect.closeTo(-20, 9),
  ],
  'output-at-rest': [{ outputMilliamp: 3.8 }, 'verdict', 'at saturation'],
  'position-head': [
    { fillKgPerM3: 934, distanceMm: 60, tiltDegrees: 15 },
    'headPa',
    expect.closeTo(142.2378, 4),
  ],
  'terminal-voltage': [{ voltage: 18, atMilliamp: 4, loopOhm: 250 }, 'leastV', expect.closeTo(13.5, 12)],
};
