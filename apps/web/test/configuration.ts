/** A configuration for tests of what is drawn and said of one. */
import type { Configuration } from '@barys/store';

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
};
