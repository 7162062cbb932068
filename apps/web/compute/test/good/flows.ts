import { expect } from 'vitest';
import type { Good } from '../parts';

const water = { densityKgPerM3: 998.2, viscosityPaS: 0.001002 };
const flowScale = { flowMax: 500, differentialMax: 25 };

export const FLOWS: Good = {
  // K-P01, K-P05, K-P03, K-P07, K-P13, K-P19, K-P21, K-P22 and K-P24 of the core's cases.
  'flow-from-differential': [
    {
      scale: { flowMax: 400, differentialMax: 16 },
      differential: 0.041,
      transferFunction: { kind: 'square-root-cut-off', cutOffPercentOfFlow: 5 },
    },
    'flow',
    expect.closeTo(20.24845673132, 9),
  ],
  'differential-from-flow': [{ scale: flowScale, flow: 125 }, 'differential', 1.5625],
  'flow-error': [{ flowPercent: 10, errorPercent: 0.1 }, 'percentOfFlow', expect.closeTo(4.880884817015, 9)],
  'flow-rangeability': [{ cutOffPercentOfFlow: 10 }, 'rangeability', 10],
  'gas-density-factor': [
    { pressure: 12.5, temperatureC: 60, designPressure: 10, designTemperatureC: 20 },
    'factor',
    expect.closeTo(1.048769495456, 9),
  ],
  'orifice-flow': [
    {
      plate: { pipeM: 0.1, boreM: 0.05, taps: 'corner' },
      fluid: { ...water, pressurePa: 6e5 },
      differentialPa: 25_000,
    },
    'massFlow',
    expect.closeTo(8.691136450457, 5),
  ],
  'orifice-differential': [
    {
      plate: { pipeM: 0.1, boreM: 0.06, taps: 'flange' },
      fluid: { ...water, pressurePa: 7e5 },
      massFlow: 15,
    },
    'differentialPa',
    expect.closeTo(33_093.74257278, 2),
  ],
  'orifice-bore': [
    {
      pipeM: 0.15405,
      taps: 'flange',
      fluid: { ...water, pressurePa: 9e5 },
      massFlow: 30,
      differentialPa: 25_000,
    },
    'boreM',
    expect.closeTo(0.09127857298156, 7),
  ],
  'flow-total': [
    {
      samples: [
        { time: 0, flow: 0 },
        { time: 60, flow: 6 },
        { time: 120, flow: 6 },
        { time: 150, flow: 0 },
      ],
    },
    'trapezoid',
    630,
  ],
  'flow-total-from-differential': [
    {
      scale: flowScale,
      samples: [
        { time: 0, differential: 25 },
        { time: 1, differential: 25 },
      ],
      perUnitTime: 60,
    },
    'trapezoid',
    expect.closeTo(500 / 60, 9),
  ],
  'totaliser-factor': [{ flowMax: 450, countsPerTime: 9000 }, 'factor', 0.05],
  'damped-flow': [
    { flowPercent: 50, noisePercent: 0, noiseTimeS: 1, dampingS: 2 },
    'meanPercent',
    expect.closeTo(50, 9),
  ],
};
