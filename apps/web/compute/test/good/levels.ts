import { expect } from 'vitest';
import type { Good } from '../parts';

const tank = { arrangement: 'open', liquidKgPerM3: 1000, fullM: 3 };
const drum = { tapsM: 0.6, fullM: 0.6 };
const hot = { pressurePa: 4e6, legTemperatureC: 40 };

export const LEVELS: Good = {
  'liquid-density': [
    {
      points: [
        { temperatureC: 20, densityKgPerM3: 1040 },
        { temperatureC: 60, densityKgPerM3: 1020 },
      ],
      temperatureC: 30,
    },
    'densityKgPerM3',
    1035,
  ],
  'level-range': [tank, 'urvPa', expect.closeTo(29419.95, 9)],
  'level-indication': [
    { measurement: tank, contents: { liquidKgPerM3: 950 }, trueLevelM: 2 },
    'indicatedM',
    expect.closeTo(1.9, 12),
  ],
  'level-from-differential': [
    { measurement: tank, differentialPa: 9806.65 },
    'levelM',
    expect.closeTo(1, 12),
  ],
  'level-of-limit': [{ measurement: tank, limitPa: 98.0665 }, 'levelM', expect.closeTo(0.01, 12)],
  'lost-leg': [
    {
      measurement: {
        ...tank,
        arrangement: 'wet-leg',
        liquidKgPerM3: 800,
        aboveKgPerM3: 0,
        fillKgPerM3: 1000,
        tapsM: 3,
      },
      lostM: 0.1,
    },
    'shiftM',
    expect.closeTo(0.125, 12),
  ],
  'vessel-volume': [
    { vessel: { shape: 'sphere', diameterM: 10 }, levelM: 5 },
    'volumeM3',
    expect.closeTo(261.799388, 6),
  ],
  'vessel-level': [
    { vessel: { shape: 'cone', bottomDiameterM: 2, topDiameterM: 2, heightM: 4 }, volumeM3: Math.PI },
    'levelM',
    expect.closeTo(1, 12),
  ],
  'saturated-water': [{ pressurePa: 4e6 }, 'waterKgPerM3', expect.closeTo(798.358206, 6)],
  'compressed-water-density': [
    { temperatureC: 60, pressurePa: 8e6 },
    'densityKgPerM3',
    expect.closeTo(986.624976, 6),
  ],
  'drum-range': [{ taps: drum, state: hot }, 'urvPa', expect.closeTo(-1150.7, 1)],
  'drum-indication': [
    { taps: drum, ranged: hot, now: { ...hot, pressurePa: 6e6 }, trueLevelM: 0.3 },
    'indicatedM',
    expect.closeTo(0.287908, 6),
  ],
  'drum-level': [{ tapsM: 0.6, state: hot, differentialPa: 2100 }, 'levelM', expect.closeTo(0.47562, 5)],
  'gauge-glass': [
    { glass: { temperatureC: 150 }, state: { ...hot, pressurePa: 6e6 }, trueLevelM: 0.35 },
    'readingM',
    expect.closeTo(0.286195, 6),
  ],
  'hot-check': [
    { taps: drum, ranged: hot, now: hot, glass: { temperatureC: 250 }, glassM: 0.3, shownM: 0.3 },
    'expectedM',
    expect.closeTo(0.3, 2),
  ],
};
