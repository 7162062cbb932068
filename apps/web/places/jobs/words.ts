/** The words for stages, reasons and checks, in one place. */
import { showDate } from '@/server/dates';
import { HOOK_UPS, type Arrangement } from '@barys/core/hookup';
import { formatPlain } from '@barys/core/text';
import { PRESSURE_UNITS, type PressureKind } from '@barys/core/units';
import type {
  JobFile,
  AdjustmentKind,
  ConnectCheck,
  Connection,
  DecisionOnRun,
  JobReason,
  Leak,
  Since,
  Standing,
  WorkPlace,
} from '@barys/store/jobs';
import type { JobDoubt } from '@barys/store/registers';
import type { Run } from '@barys/store/runs';

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
  cancelled: 'Cancelled',
};

export const REASON_WORD: Record<JobReason, string> = {
  due: 'Due',
  fault: 'Reported fault',
  check: 'Check between due dates',
  'range change': 'Range change',
  new: 'New instrument',
  'cold set-up': 'Drum level, cold set-up',
  'hot check': 'Drum level, hot check',
  'loop check': 'Loop check',
};

export const PLACE_WORD: Record<WorkPlace, string> = {
  'on site': 'On site, where it is installed',
  'at the bench': 'At the bench',
};

/** Where, in a sentence: `on site, Juice house`, `at the bench`. */
export const placeInWords = (place: WorkPlace, area: string): string =>
  place === 'on site' ? `on site, ${area}` : place;

const SINCE_WORD: Record<Since['name'], string> = {
  tag: 'tag',
  serial: 'serial number',
  service: 'service',
  description: 'description',
  site: 'site',
  area: 'area',
  loop: 'loop',
  criticality: 'criticality',
  hazards: 'hazards',
  measures: 'what it measures',
  kind: 'kind of pressure',
  hookUp: 'hook-up',
};

/** Where the register says otherwise today than the job, in a sentence. */
const sinceInWords = (since: readonly Since[]): string =>
  `the register says otherwise today: ${since
    .map(({ name, today }) => {
      const words = name === 'hookUp' && isArrangement(today) ? HOOK_UPS[today].name : today;
      return `${SINCE_WORD[name]} ${words === '' ? 'none' : words}`;
    })
    .join('; ')}`;

/** Where register or people are called otherwise today than in the job, as a fact; none where nothing is. */
export const sinceFacts = ({
  since,
  renamed,
}: Pick<JobFile, 'since' | 'renamed'>): (readonly [what: string, words: string])[] => [
  ...(since.length === 0 ? [] : [['Since', sinceInWords(since)] as const]),
  ...(renamed.length === 0
    ? []
    : [['Names', renamed.map(({ then, today }) => `${then} is called ${today} today`).join('; ')] as const]),
];

/** The days on which readings that count were taken. */
export function daysInWords(runs: readonly Run[]): string {
  const days = runs
    .filter(({ thrownAway }) => thrownAway === null)
    .flatMap(({ readings }) => readings.map(({ day }) => day))
    .sort();
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined) return 'no reading yet';
  return first === last ? showDate(last) : `${showDate(first)} to ${showDate(last)}`;
}

/** What was found since of a standard of a job, in a sentence. */
export const doubtInWords = ({ reference, foundOn, decision, remark, decidedBy }: JobDoubt): string =>
  `${reference} was found out of tolerance on ${showDate(foundOn)}: ${
    decision === null
      ? 'what that means here is not decided yet'
      : `${decision}${remark === '' ? '' : `, ${remark}`} (${decidedBy ?? ''})`
  }`;

/** Findings of a job, each said once. */
export const doubtsInWords = (doubts: readonly JobDoubt[]): readonly string[] => [
  ...new Set(doubts.map(doubtInWords)),
];

const isArrangement = (text: string): text is Arrangement => text in HOOK_UPS;

const CHECK_WORD: Record<ConnectCheck, string> = {
  'warmed up': 'Batteries good, reference and meter warmed up',
  'reference zeroed': 'Reference zeroed, open to atmosphere',
  'leak checked': 'Leak check passed at full scale',
  'exercised to full scale': 'Exercised to full scale and back',
};

/** What is counted from nothing is not zeroed at the pressure of the air, and is tight when it does not rise. */
const CHECK_WORD_OF_KIND: Partial<Record<PressureKind, Partial<Record<ConnectCheck, string>>>> = {
  absolute: {
    'reference zeroed':
      'Reference compared with the barometer, or zeroed under vacuum; not zeroed open to atmosphere',
    'leak checked': 'Leak check passed: shut in, neither lost nor rising',
  },
  vacuum: {
    'reference zeroed':
      'Zero of the reference checked far below its lowest decade; not zeroed open to atmosphere',
    'leak checked': 'Rate of rise checked: pumped down, valved off',
    'exercised to full scale': 'Gas let in and pumped down again',
  },
};

/** A check in words, also one that was asked in earlier days and stands in a record. */
export const checkInWords = (check: string, kind: PressureKind): string =>
  Object.entries({ ...CHECK_WORD, ...CHECK_WORD_OF_KIND[kind] }).find(([known]) => known === check)?.[1] ??
  check;

export const ADJUSTMENT_WORD: Record<AdjustmentKind, string> = {
  zero: 'Zero',
  span: 'Span',
  'sensor trim': 'Sensor trim',
  'output trim': 'Output trim',
  'mid-scale': 'Mid-scale',
  'near vacuum': 'Near vacuum',
  're-range': 'Range set in it',
  linkage: 'Linkage',
  'factory restore': 'Factory values restored',
  'last field restore': 'Last field values restored',
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

/** The rate of a leak check, with its direction where the record knows it. */
export const leakRateInWords = ({ percentOfSpanPerMinute, of = 'span', limit, direction }: Leak): string => {
  const size = direction === undefined ? percentOfSpanPerMinute : Math.abs(percentOfSpanPerMinute);
  const way = direction === 'rose' ? 'Rising by ' : direction === 'lost' ? 'Falling by ' : '';
  return `${way}${short(size)} % of ${of} a minute, at most ${short(limit)}`;
};

export const leakInWords = (leak: Leak): string =>
  `${leak.startText} to ${leak.endText} in ${formatPlain(leak.minutes)} min: ${leakRateInWords(leak).toLowerCase()}`;

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
