/** A body as it is typed, and back. Lists are one line each, so that a checklist can be pasted. */
import { leastSpanOfStamp } from '@barys/core/ranging';
import { SIGNALS } from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import { PRESSURE_KINDS, PRESSURE_UNITS } from '@barys/core/units';
import type { Body, NewBody } from '@barys/store/registers';
import { TECHNOLOGIES } from '@barys/store/shapes';
import { typedNumber } from '@/ui/readNumber';
import type { FieldSpec } from '@/ui/FieldGrid';

export const BODY_FIELDS = {
  model: '',
  kind: 'gauge',
  technology: 'smart',
  unit: 'bar',
  lowerRangeLimit: '',
  upperRangeLimit: '',
  leastSpan: '',
  greatestSpan: '',
  stampedTurndown: '',
  greatestElevationPercent: '',
  greatestSuppressionPercent: '',
  accuracy: '',
  spanClasses: '',
  swapChecklist: '',
};
export type BodyFields = Readonly<typeof BODY_FIELDS>;

export const BODY_SPECS: readonly FieldSpec<keyof BodyFields>[] = [
  { name: 'model', label: 'Model', width: 6 },
  { name: 'kind', label: 'Kind of pressure', options: PRESSURE_KINDS, width: 3 },
  { name: 'technology', label: 'Technology', options: TECHNOLOGIES, width: 3 },
  {
    name: 'unit',
    label: 'Limits in',
    options: Object.entries(PRESSURE_UNITS).map(([unit, { label }]) => [unit, label] as const),
    width: 4,
  },
  { name: 'lowerRangeLimit', label: 'Lower range limit', kind: 'number', width: 2 },
  { name: 'upperRangeLimit', label: 'Upper range limit', kind: 'number', width: 2 },
  { name: 'leastSpan', label: 'Least span', kind: 'number', width: 2 },
  { name: 'greatestSpan', label: 'Greatest span', kind: 'number', width: 2, help: 'Empty: all of it' },
  {
    name: 'stampedTurndown',
    label: 'Turndown, where stamped with its largest span only',
    kind: 'number',
    width: 6,
    help: 'The least span may then stay empty: 4 and a largest span of 200 give 50',
  },
  {
    name: 'greatestElevationPercent',
    label: 'Zero elevation, % of span',
    kind: 'number',
    width: 3,
    help: 'At most; empty: to the limits',
  },
  {
    name: 'greatestSuppressionPercent',
    label: 'Zero suppression, %',
    kind: 'number',
    width: 3,
    help: 'At most; empty: to the limits',
  },
  {
    name: 'accuracy',
    label: 'Accuracy, % of span',
    width: 12,
    help: 'A formula in span and URL, such as 0.05 + 0.005 * URL / span; empty where it is not known',
  },
  {
    name: 'spanClasses',
    label: 'Mechanical span classes',
    kind: 'lines',
    width: 6,
    help: 'One a line: name; least span; greatest span',
  },
  {
    name: 'swapChecklist',
    label: 'Checklist of a swap',
    kind: 'lines',
    width: 6,
    help: 'One step a line; a torque in N·m behind a semicolon',
  },
];

export const SIGNAL_NAMES = Object.keys(SIGNALS) as (keyof typeof SIGNALS)[];

const plain = (value: number | null): string =>
  value === null ? '' : formatPlain(value).replace('\u2212', '-');

export function fieldsOfBody(body: Body): BodyFields {
  return {
    model: body.model,
    kind: body.kind,
    technology: body.technology,
    unit: body.unit,
    lowerRangeLimit: plain(body.lowerRangeLimit),
    upperRangeLimit: plain(body.upperRangeLimit),
    leastSpan: plain(body.leastSpan),
    greatestSpan: plain(body.greatestSpan),
    stampedTurndown: plain(body.stampedTurndown),
    greatestElevationPercent: plain(body.greatestElevationPercent),
    greatestSuppressionPercent: plain(body.greatestSuppressionPercent),
    accuracy: body.accuracy,
    spanClasses: body.spanClasses
      .map(({ name, leastSpan, greatestSpan }) => `${name}; ${plain(leastSpan)}; ${plain(greatestSpan)}`)
      .join('\n'),
    swapChecklist: body.swapChecklist
      .map(({ step, torqueNm }) => (torqueNm === null ? step : `${step}; ${plain(torqueNm)}`))
      .join('\n'),
  };
}

const linesOf = (text: string): string[][] =>
  text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .map((line) => line.split(';').map((part) => part.trim()));

/** What the schema of a body reads. */
export function bodyOfFields(
  fields: BodyFields,
  outputs: readonly string[],
  trims: readonly string[],
): Record<keyof NewBody, unknown> {
  const [leastSpan, greatestSpan, stampedTurndown] = [
    typedNumber(fields.leastSpan),
    typedNumber(fields.greatestSpan),
    typedNumber(fields.stampedTurndown),
  ];
  const isStamped =
    greatestSpan !== null && greatestSpan > 0 && stampedTurndown !== null && stampedTurndown >= 1;
  const stampedLeast = isStamped ? leastSpanOfStamp(greatestSpan, stampedTurndown) : null;
  return {
    ...fields,
    outputs,
    trims,
    lowerRangeLimit: typedNumber(fields.lowerRangeLimit),
    upperRangeLimit: typedNumber(fields.upperRangeLimit),
    leastSpan: leastSpan ?? stampedLeast,
    greatestSpan,
    stampedTurndown,
    greatestElevationPercent: typedNumber(fields.greatestElevationPercent),
    greatestSuppressionPercent: typedNumber(fields.greatestSuppressionPercent),
    spanClasses: linesOf(fields.spanClasses).map(([name, least = '', greatest = '']) => ({
      name,
      leastSpan: typedNumber(least),
      greatestSpan: typedNumber(greatest),
    })),
    // The last part is a torque only where it is a number, so that a step may have a semicolon of its own.
    swapChecklist: linesOf(fields.swapChecklist).map((parts) => {
      const torque = parts.length > 1 ? typedNumber(parts.at(-1) ?? '') : null;
      return torque === null || Number.isNaN(torque)
        ? { step: parts.join('; '), torqueNm: null }
        : { step: parts.slice(0, -1).join('; '), torqueNm: torque };
    }),
  };
}
