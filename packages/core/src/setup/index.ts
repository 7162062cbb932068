/** The set-up of a transmitter: its settings in order, what a wrong one does, and the checks that belong to it. */
export { leastTerminalVoltage, outputAtRest, positionHead, type RestVerdict } from './checks';
export { compareSetups, type Difference, type Matters, type SetupComparison } from './compare';
export { readSwitchingPoints, switchingPointsText } from './points';
export {
  APPLICATIONS,
  DRIVING_VARIABLES,
  NOTHING_READ,
  SETTINGS,
  settingWords,
  START_VIEWS,
  transferWords,
  type Application,
  type DrivingVariable,
  type SettingKey,
  type Setup,
  type StartView,
  type SwitchingPoint,
  type WantedSetup,
} from './settings';
export { workDifference, workLeastTerminalVoltage, workPositionHead } from './working';
