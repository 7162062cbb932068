import type { Good } from '../parts';

export const SUSPECTS: Good = {
  suspects: [
    {
      range: { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 },
      limitPercent: 0.5,
      inputUnit: 'kPa',
      pressureKind: 'gauge',
      saturation: [3.8, 20.5],
      readings: [0, 25, 50, 75, 100].map((applied) => ({
        applied,
        direction: 'up',
        output: 24 - 4 - 0.16 * applied,
      })),
    },
    'told',
    'reversed',
  ],
};
