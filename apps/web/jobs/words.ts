/** The words for stages, reasons and checks, in one place. */
import type { AdjustmentKind, ConnectCheck, DecisionOnRun, JobReason, Standing } from '@barys/store';

export const STAGE_WORD: Record<Standing, string> = {
  brief: 'Brief',
  authorise: 'Authorise',
  isolate: 'Isolate',
  connect: 'Connect',
  'as-found': 'As found',
  judge: 'Judge',
  adjust: 'Adjust',
  'as-left': 'As left',
  return: 'Return',
  sign: 'Sign',
  review: 'To review',
  closed: 'Closed',
};

export const REASON_WORD: Record<JobReason, string> = {
  due: 'Due',
  fault: 'Reported fault',
  check: 'Check between due dates',
};

export const CHECK_WORD: Record<ConnectCheck, string> = {
  'isolated and vented': 'Isolated and vented as the site requires; zero energy proven',
  'reference zeroed': 'Reference zeroed, open to atmosphere',
  'leak checked': 'Leak check passed at full scale',
  'exercised to full scale': 'Exercised to full scale and back',
};

export const ADJUSTMENT_WORD: Record<AdjustmentKind, string> = {
  zero: 'Zero',
  span: 'Span',
  'sensor trim': 'Sensor trim',
  'output trim': 'Output trim',
  linkage: 'Linkage',
  cleaning: 'Cleaning',
  part: 'Part exchanged',
  other: 'Other',
};

export const DECISION_WORD: Record<DecisionOnRun, string> = {
  leave: 'Leave as found',
  adjust: 'Adjust',
  repair: 'Repair',
  replace: 'Replace',
  'range change': 'Range change',
  'further tests': 'Further tests',
};
