/** A configuration for tests of what is drawn and said of one. */
import type { Configuration } from '@barys/store/registers';
import type { MadeWith } from '@barys/store/runs';

export const TEST_CONFIGURATION: Configuration = {
  version: 1,
  inputUnit: 'mbar',
  lrv: 120,
  urv: 620,
  signal: 'mA-4-20',
  outputUnit: 'mA',
  outputLow: 4,
  outputHigh: 20,
  transferFunction: { kind: 'linear' },
  dampingS: 2,
  displayUnit: 'm³',
  displayLow: 0,
  displayHigh: 48,
  scaleDivision: null,
  displayDampingS: null,
  application: null,
  startView: null,
  drivenBy: null,
  switchingPoints: [],
};

/** A standard of 0.01 % of its 1000 mbar and nothing else. */
export const TEST_STANDARD: MadeWith['pressureReference'] = {
  tag: 'PC-1',
  name: '',
  description: 'calibrator',
  serial: '1',
  unit: 'mbar',
  rangeLow: 0,
  rangeHigh: 1000,
  resolution: 0,
  certificate: 'K-1',
  calibratedOn: '2026-01-01',
  dueOn: '2027-01-01',
  percentOfReading: 0,
  percentOfRange: 0.01,
  floor: 0,
  driftPercentOfReadingPerYear: 0,
  percentOfReadingPerK: 0,
  uncertaintyPercentOfRange: null,
  results: [],
};

/** 0.25 % of span, adjust above 70 % of it. */
export const TEST_TOLERANCE: MadeWith['tolerance'] = {
  percentOfSpan: 0.25,
  middlePercentOfSpan: null,
  percentOfReading: 0,
  adjustAbovePercentOfLimit: 70,
};
