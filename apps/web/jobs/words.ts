/** The words for stages, reasons and checks, in one place. */
import { formatPlain, PRESSURE_UNITS } from '@barys/core';
import type {
  AdjustmentKind,
  ConnectCheck,
  Connection,
  DecisionOnRun,
  JobReason,
  Leak,
  Standing,
} from '@barys/store';

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
  'range change': 'Range change',
  new: 'New instrument',
};

export const CHECK_WORD: Record<ConnectCheck, string> = {
  'warmed up': 'Batteries good, reference and meter warmed up',
  'reference zeroed': 'Reference zeroed, open to atmosphere',
  'leak checked': 'Leak check passed at full scale',
  'exercised to full scale': 'Exercised to full scale and back',
};

/** A check in words, also one that was asked in earlier days and stands in a record. */
export const checkInWords = (check: string): string =>
  Object.entries(CHECK_WORD).find(([known]) => known === check)?.[1] ?? check;

export const ADJUSTMENT_WORD: Record<AdjustmentKind, string> = {
  zero: 'Zero',
  span: 'Span',
  'sensor trim': 'Sensor trim',
  'output trim': 'Output trim',
  'mid-scale': 'Mid-scale',
  'near vacuum': 'Near vacuum',
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

const short = (value: number): string => formatPlain(Number(value.toPrecision(2)));

export const leakInWords = ({ startText, endText, minutes, percentOfSpanPerMinute, limit }: Leak): string =>
  `${startText} to ${endText} in ${formatPlain(minutes)} min: ${short(percentOfSpanPerMinute)} % of span a minute, at most ${short(limit)}`;

export const headInWords = ({
  heightM,
  liquidDensityKgPerM3,
  head,
  inputUnit,
}: Pick<Connection, 'heightM' | 'liquidDensityKgPerM3' | 'head' | 'inputUnit'>): string =>
  `instrument ${formatPlain(Math.abs(heightM))} m ${heightM > 0 ? 'above' : 'below'} the standard, ${
    liquidDensityKgPerM3 === 0
      ? 'gas in the line: left out'
      : `liquid of ${formatPlain(liquidDensityKgPerM3)} kg/m³: it sees ${formatPlain(head)} ${PRESSURE_UNITS[inputUnit].label} more`
  }`;
