/** The words for stages, reasons and checks, in one place. */
import type { AdjustmentKind, ConnectCheck, JobReason, Stage } from '@barys/store';

export const STAGE_WORD: Record<Stage | 'closed', string> = {
  brief: 'Brief',
  connect: 'Connect',
  'as-found': 'As found',
  judge: 'Judge',
  adjust: 'Adjust',
  'as-left': 'As left',
  sign: 'Sign',
  closed: 'Signed',
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
  other: 'Other',
};
