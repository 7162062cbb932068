/** Drivers that ship: those of the stand-ins. Commands after SCPI-1999 as far as it has them (from memory). */
import type { Driver } from './wire';

const IDENTIFY = {
  ask: '*IDN?',
  // Four fields, IEEE 488.2, 10.14 (from memory).
  answer: '(?<maker>[^,]*),(?<model>[^,]*),(?<serial>[^,]*),(?<firmware>[^,]*)',
};
const COMMON = {
  identify: IDENTIFY,
  begin: ['*CLS'],
  set: null,
  hold: null,
  vent: null,
  errors: { ask: 'SYST:ERR?', answer: '\\+?0,.*' },
  answerMs: 1000,
  pauseMs: 2,
};
const UNITS: Driver['units'] = [
  { theirs: 'KPA', ours: 'kPa' },
  { theirs: 'PA', ours: 'Pa' },
  { theirs: 'BAR', ours: 'bar' },
  { theirs: 'MBAR', ours: 'mbar' },
  { theirs: 'PSI', ours: 'psi' },
];
const VALUE = '(?<value>[^,]+),(?<unit>\\w+),(?<stable>[01])';

export const CONTROLLER_DRIVER: Driver = {
  ...COMMON,
  name: 'Pressure controller, plain text',
  begin: ['*CLS', 'UNIT:PRES KPA'],
  reads: { pressure: { ask: 'MEAS:PRES?', answer: VALUE, unit: null } },
  units: UNITS,
  set: ['SOUR:PRES:SLEW {rate}', 'SOUR:PRES {value}', 'OUTP:MODE CONT'],
  hold: ['OUTP:MODE HOLD'],
  vent: ['OUTP:MODE VENT'],
};

export const INDICATOR_DRIVER: Driver = {
  ...COMMON,
  name: 'Reference indicator, plain text',
  reads: { pressure: { ask: 'MEAS:PRES?', answer: VALUE, unit: null } },
  units: UNITS,
};

/** A voltmeter across the resistor of a loop, by the standard alone. */
export const VOLTMETER_DRIVER: Driver = {
  ...COMMON,
  name: 'Voltmeter, by the standard alone',
  reads: { voltage: { ask: 'MEAS:VOLT:DC?', answer: '(?<value>[^,]+)', unit: 'V' } },
  units: [{ theirs: 'V', ours: 'V' }],
};

/** What a receiver shows, per cent of its scale. */
export const RECEIVER_DRIVER: Driver = {
  ...COMMON,
  name: 'Receiver, plain text',
  reads: { display: { ask: 'MEAS:DISP?', answer: '(?<value>[^,]+)', unit: '%' } },
  units: [{ theirs: '%', ours: '%' }],
};

/** A meter that follows the standard alone: it answers with a bare number, in amperes. */
export const METER_DRIVER: Driver = {
  ...COMMON,
  name: 'Loop meter, by the standard alone',
  reads: { current: { ask: 'MEAS:CURR:DC?', answer: '(?<value>[^,]+)', unit: 'A' } },
  units: [{ theirs: 'A', ours: 'A' }],
};
