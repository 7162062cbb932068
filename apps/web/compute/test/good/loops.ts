import { expect } from 'vitest';
import type { Good } from '../parts';

const loop = { supplyV: 24, liftOffV: 12, senseOhm: 250, wire: { lengthM: 500, areaMm2: 1 } };
const chain = [
  {
    name: 'FT',
    from: null,
    input: { low: 0, high: 25 },
    output: { low: 4, high: 20 },
    transfer: { kind: 'square-root' },
    tolerancePercent: 0.1,
  },
  {
    name: 'R',
    kind: 'resistor',
    from: 0,
    input: { low: 4, high: 20 },
    output: { low: 1, high: 5 },
    tolerancePercent: 0.1,
  },
];

export const LOOPS: Good = {
  // M-P01, M-P10 and M-P18 of the core's cases.
  'loop-supply': [{ supply: loop }, 'terminalV.atFailure', expect.closeTo(18.38796, 7)],
  'wire-area': [{ gauge: 22 }, 'areaMm2', expect.closeTo(0.3255339412455, 9)],
  'bad-connection': [
    { supply: loop, measuredV: 24 - 0.01 * (267.24 + 700), atMilliamp: 10 },
    'ohm',
    expect.closeTo(700, 6),
  ],
  'receiver-voltage': [
    { milliamp: 4, resistorOhm: 249, tolerancePercent: 1 },
    'leastV',
    expect.closeTo(0.98604, 9),
  ],
  'loop-tap': [{ items: chain, at: 1, applied: 6.25, read: 3.008 }, 'verdict', 'within'],
  'loop-taps': [{ items: chain, applied: 6.25 }, 'taps', [12, 3]],
  'loop-diagnosis': [
    {
      items: chain,
      readings: [
        { item: 0, applied: 6.25, value: 12.001, uncertainty: 0.002 },
        { item: 1, applied: 6.25, value: 3.1, uncertainty: 0.001 },
      ],
    },
    'suspicions.0.item',
    1,
  ],
  'loop-tolerance': [{ items: chain, at: 1, applied: 6.25 }, 'sum', expect.closeTo(0.2, 9)],
};
