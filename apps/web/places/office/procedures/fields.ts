/** A procedure as it is typed, and back. Questions and cautions are one a line. */
import { SCHOOLS } from '@barys/core/adjust';
import { USUAL_APPROACH } from '@barys/core/automatic';
import type { ProcedureContent } from '@barys/store/registers';
import { STAGES } from '@barys/store/shapes';
import type { FieldSpec } from '@/ui/FieldGrid';
import { typedNumber } from '@/ui/readNumber';
import { POINTS_IN, SCHOOL_WORD } from './words';

export const PROCEDURE_FIELDS = {
  name: '',
  pointsIn: 'percent-of-input',
  points: '0; 25; 50; 75; 100',
  direction: 'up-and-down',
  cycles: '1',
  isTopRepeated: 'no',
  offStopsPercent: '0',
  leftPercent: '0.1',
  holdS: '3',
  bandPercent: '0.02',
  tolerancePercentOfSpan: '',
  ratePercentPerS: String(USUAL_APPROACH.ratePercentPerS),
  onLoss: USUAL_APPROACH.onLoss as string,
  adjustAbovePercentOfLimit: '',
  school: 'past the adjust limit' as string,
  rule: 'simple',
  r: '1',
  isUndecidedAllowed: 'yes',
  leastRatio: '4',
  isAsFoundOnly: 'no',
  questions: '',
  cautions: '',
  reason: '',
};
export type ProcedureFields = Readonly<typeof PROCEDURE_FIELDS>;

const YES_NO = ['yes', 'no'] as const;

export const PROCEDURE_SPECS: readonly FieldSpec<keyof ProcedureFields>[] = [
  { name: 'name', label: 'Name', width: 6 },
  { name: 'reason', label: 'Why this version', width: 6, help: 'Stays with the version' },
  { name: 'pointsIn', label: 'Points in', options: Object.entries(POINTS_IN), width: 3, path: 'points.in' },
  { name: 'points', label: 'Points', width: 6, help: 'Parted by ;  at most 11' },
  {
    name: 'direction',
    label: 'Order',
    options: [
      ['up', 'up'],
      ['down', 'down'],
      ['up-and-down', 'up and down'],
    ],
    width: 3,
  },
  { name: 'cycles', label: 'Cycles', kind: 'number', width: 3 },
  { name: 'isTopRepeated', label: 'Top approached twice', options: YES_NO, width: 3 },
  { name: 'offStopsPercent', label: 'Off the stops, % of span', kind: 'number', width: 3 },
  { name: 'isAsFoundOnly', label: 'As found only', options: YES_NO, width: 3 },
  {
    name: 'leftPercent',
    path: 'settle.leftPercent',
    label: 'Wait until left of a step, %',
    kind: 'number',
    width: 4,
    help: 'The wait follows from the damping',
  },
  { name: 'holdS', path: 'settle.holdS', label: 'Then steady for, s', kind: 'number', width: 4 },
  { name: 'bandPercent', path: 'settle.bandPercent', label: 'within, % of span', kind: 'number', width: 4 },
  {
    name: 'ratePercentPerS',
    path: 'approach.ratePercentPerS',
    label: 'A controller approaches at, % of span/s',
    kind: 'number',
    width: 4,
  },
  {
    name: 'onLoss',
    label: 'When nobody hears of it',
    options: [
      ['hold', 'it shuts the pressure in'],
      ['vent', 'it vents'],
    ],
    width: 8,
  },
  {
    name: 'tolerancePercentOfSpan',
    label: 'Tolerance, ±% of span',
    kind: 'number',
    width: 4,
    help: "Empty: the instrument's own",
  },
  {
    name: 'adjustAbovePercentOfLimit',
    label: 'Adjust above, % of the tolerance',
    kind: 'number',
    width: 4,
    help: "Empty: the instrument's own",
  },
  {
    name: 'school',
    label: 'When it is adjusted',
    options: SCHOOLS.map((school) => [school, SCHOOL_WORD[school]] as const),
    width: 4,
    help: 'Practice differs',
  },
  {
    name: 'leastRatio',
    label: 'Least accuracy ratio',
    kind: 'number',
    width: 4,
    help: '4 is common practice',
  },
  {
    name: 'rule',
    path: 'decisionRule.kind',
    label: 'Decision rule',
    options: [
      ['simple', 'simple acceptance'],
      ['guard-band', 'guard band r U'],
      ['method-6', 'guard band of method 6'],
    ],
    width: 4,
  },
  { name: 'r', path: 'decisionRule.r', label: 'r of the guard band', kind: 'number', width: 4 },
  { name: 'isUndecidedAllowed', label: 'Undecided is an answer', options: YES_NO, width: 4 },
  {
    name: 'questions',
    label: 'Questions',
    kind: 'lines',
    width: 6,
    help: `One a line, its stage first:  connect: Is the supply clean?  Stages: ${STAGES.join(', ')}`,
  },
  { name: 'cautions', label: 'Cautions', kind: 'lines', width: 6, help: 'One a line' },
];

/** Where there is no guard band, nothing is asked about it. */
export const PROCEDURE_SPECS_UNBANDED = PROCEDURE_SPECS.filter(
  ({ name }) => name !== 'r' && name !== 'isUndecidedAllowed',
).map((spec) => (spec.name === 'rule' ? { ...spec, width: 12 } : spec));

const optional = (value: number | null): string => (value === null ? '' : String(value));
const yes = (flag: boolean): string => (flag ? 'yes' : 'no');

export function fieldsOfProcedure(name: string, content: ProcedureContent): ProcedureFields {
  const { decisionRule: rule } = content;
  return {
    name,
    pointsIn: content.points.in,
    points: content.points.values.join('; '),
    direction: content.direction,
    cycles: String(content.cycles),
    isTopRepeated: yes(content.isTopRepeated),
    offStopsPercent: String(content.offStopsPercent),
    leftPercent: String(content.settle.leftPercent),
    holdS: String(content.settle.holdS),
    bandPercent: String(content.settle.bandPercent),
    ratePercentPerS: String((content.approach ?? USUAL_APPROACH).ratePercentPerS),
    onLoss: (content.approach ?? USUAL_APPROACH).onLoss,
    tolerancePercentOfSpan: optional(content.tolerancePercentOfSpan),
    adjustAbovePercentOfLimit: optional(content.adjustAbovePercentOfLimit),
    school: content.school ?? 'past the adjust limit',
    rule: rule.kind,
    r: rule.kind === 'guard-band' ? String(rule.r) : PROCEDURE_FIELDS.r,
    isUndecidedAllowed: yes(rule.kind !== 'guard-band' || rule.isUndecidedAllowed),
    leastRatio: String(content.leastRatio),
    isAsFoundOnly: yes(content.isAsFoundOnly),
    questions: content.questions.map(({ stage, text }) => `${stage}: ${text}`).join('\n'),
    cautions: content.cautions.join('\n'),
    reason: '',
  };
}

const linesOf = (text: string): string[] => text.split('\n').filter((line) => line.trim() !== '');

/** What the schema of a procedure's content reads. */
export function contentOfFields(fields: ProcedureFields): Record<string, unknown> {
  return {
    points: {
      in: fields.pointsIn,
      values: fields.points
        .split(/[;\s]+/)
        .filter(Boolean)
        .map(typedNumber),
    },
    direction: fields.direction,
    cycles: typedNumber(fields.cycles),
    isTopRepeated: fields.isTopRepeated === 'yes',
    offStopsPercent: typedNumber(fields.offStopsPercent),
    settle: {
      leftPercent: typedNumber(fields.leftPercent),
      holdS: typedNumber(fields.holdS),
      bandPercent: typedNumber(fields.bandPercent),
    },
    approach: { ratePercentPerS: typedNumber(fields.ratePercentPerS), onLoss: fields.onLoss },
    tolerancePercentOfSpan: typedNumber(fields.tolerancePercentOfSpan),
    adjustAbovePercentOfLimit: typedNumber(fields.adjustAbovePercentOfLimit),
    school: fields.school,
    decisionRule:
      fields.rule === 'guard-band'
        ? {
            kind: fields.rule,
            r: typedNumber(fields.r),
            isUndecidedAllowed: fields.isUndecidedAllowed === 'yes',
          }
        : { kind: fields.rule },
    leastRatio: typedNumber(fields.leastRatio),
    isAsFoundOnly: fields.isAsFoundOnly === 'yes',
    questions: linesOf(fields.questions).map((line) => {
      const [stage = '', ...text] = line.split(':');
      return { stage: stage.trim().toLowerCase(), text: text.join(':') };
    }),
    cautions: linesOf(fields.cautions),
  };
}
