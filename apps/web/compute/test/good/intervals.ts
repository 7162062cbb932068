import type { Good } from '../parts';

export const INTERVALS: Good = {
  drift: [
    {
      history: ['2020-02-29', '2021-02-28', '2022-02-28'].map((date, index) => ({
        date,
        found: [0.01, 0.031, 0.05][index],
      })),
      limit: 0.25,
      predictAt: '2023-02-28',
    },
    'insideUntil.oneSided',
    '2030-06-03',
  ],
  anomalies: [
    {
      history: [2019, 2020, 2021, 2022, 2023, 2024].map((year, index) => ({
        date: `${year}-05-04`,
        found: [0, 0.004, -0.004, 0.006, 0.2, 0.204][index],
      })),
      limit: 0.25,
    },
    'anomalies.0.day',
    '2023-05-04',
  ],
  reliability: [{ calibrations: 20, out: 0 }, 'twoSided.high', 1],
  'reliability-model': [
    { rows: [{ interval: 12, calibrations: 25, out: 0 }], target: 0.95 },
    'interval',
    null,
  ],
  'interval-advice': [{ months: 24, cap: 12, target: 0.95 }, 'months', 12],
};
