/** The settings of a transmitter, in the order in which a technician makes them. */
import type { Transfer } from '../signal';
import { formatPlain } from '../text';
import { PRESSURE_UNITS, type PressureUnit } from '../units';

export const APPLICATIONS = ['pressure', 'level', 'flow'] as const;
export type Application = (typeof APPLICATIONS)[number];

/** What a display shows first after the supply comes on. */
export const START_VIEWS = ['display scale', 'pressure', 'per cent of range', 'output'] as const;
export type StartView = (typeof START_VIEWS)[number];

/** The variable that drives the output. */
export const DRIVING_VARIABLES = ['pressure', 'scaled variable'] as const;
export type DrivingVariable = (typeof DRIVING_VARIABLES)[number];

/** A contact: it switches at one value and back at the other, both in the input unit. */
export interface SwitchingPoint {
  readonly name: string;
  readonly on: number;
  readonly off: number;
}

/** All that is set at an instrument. Null is what nobody registered, or nobody read. */
export interface Setup {
  readonly inputUnit: PressureUnit | null;
  readonly lrv: number | null;
  readonly urv: number | null;
  readonly dampingS: number | null;
  readonly displayDampingS: number | null;
  readonly application: Application | null;
  readonly transferFunction: Transfer | null;
  readonly displayUnit: string | null;
  readonly displayLow: number | null;
  readonly displayHigh: number | null;
  readonly startView: StartView | null;
  readonly drivenBy: DrivingVariable | null;
  readonly switchingPoints: readonly SwitchingPoint[] | null;
}
export type SettingKey = keyof Setup;

/** What has to be set, with what it takes to say what a difference does. */
export interface WantedSetup extends Setup {
  readonly inputUnit: PressureUnit;
  readonly lrv: number;
  readonly urv: number;
  readonly transferFunction: Transfer;
  readonly outputLow: number;
  readonly outputHigh: number;
  readonly outputUnit: string;
  /** Largest error, per cent of the output span: what does more than this matters. */
  readonly tolerancePercentOfSpan: number;
}

export const NOTHING_READ: Setup = {
  inputUnit: null,
  lrv: null,
  urv: null,
  dampingS: null,
  displayDampingS: null,
  application: null,
  transferFunction: null,
  displayUnit: null,
  displayLow: null,
  displayHigh: null,
  startView: null,
  drivenBy: null,
  switchingPoints: null,
};

/** In the order of the walk: what later ones are entered in comes before them. Common practice. */
export const SETTINGS: readonly (readonly [key: SettingKey, name: string])[] = [
  ['inputUnit', 'Unit, with its water reference'],
  ['lrv', 'Lower range value'],
  ['urv', 'Upper range value'],
  ['dampingS', 'Damping of the output'],
  ['displayDampingS', 'Damping of the display'],
  ['application', 'Application'],
  ['transferFunction', 'Transfer function, with its low-flow start'],
  ['displayUnit', 'Display unit'],
  ['displayLow', 'Display at 0 %'],
  ['displayHigh', 'Display at 100 %'],
  ['startView', 'Start view'],
  ['drivenBy', 'Variable that drives the output'],
  ['switchingPoints', 'Switching points'],
];

/** A transfer function in words. */
export function transferWords(transfer: Transfer): string {
  switch (transfer.kind) {
    case 'linear':
      return 'linear';
    case 'square-root':
      return 'square root';
    case 'square-root-cut-off':
      return `square root, zero below ${formatPlain(transfer.cutOffPercentOfFlow)} % of flow`;
    case 'square-root-linear-start':
      return `square root, linear up to ${formatPlain(transfer.linearToPercentOfFlow)} % of flow`;
    case 'square-root-slope-one':
      return `square root, slope one up to ${formatPlain(transfer.linearToPercentOfInput)} % of differential`;
    case 'table':
      return `table of ${transfer.points.length} points`;
  }
}

const pointWords = ({ name, on, off }: SwitchingPoint, unit: string): string =>
  `${name}: at ${formatPlain(on)} ${unit}, back at ${formatPlain(off)} ${unit}`;

/** A setting in words; empty where it is not known. */
export function settingWords(setup: Setup, key: SettingKey): string {
  const unit = setup.inputUnit === null ? '' : PRESSURE_UNITS[setup.inputUnit].label;
  const figure = (value: number | null, of: string) =>
    value === null ? '' : `${formatPlain(value)} ${of}`.trim();
  switch (key) {
    case 'inputUnit':
      return unit;
    case 'lrv':
    case 'urv':
      return figure(setup[key], unit);
    case 'dampingS':
    case 'displayDampingS':
      return figure(setup[key], 's');
    case 'displayLow':
    case 'displayHigh':
      return figure(setup[key], setup.displayUnit ?? '');
    case 'transferFunction':
      return setup.transferFunction === null ? '' : transferWords(setup.transferFunction);
    case 'switchingPoints':
      if (setup.switchingPoints === null) return '';
      return setup.switchingPoints.map((point) => pointWords(point, unit)).join('; ') || 'none';
    case 'application':
    case 'displayUnit':
    case 'startView':
    case 'drivenBy':
      return setup[key] ?? '';
  }
}
