/** What a change of range asks of a body, and which bodies would do. */
import { CoreError } from '@barys/core/errors';
import { evaluateFormula, parseFormula } from '@barys/core/formula';
import {
  judgeRange,
  rankBodies,
  workRange,
  type Candidate,
  type RangeBreach,
  type RangeJudgement,
} from '@barys/core/ranging';
import { formatFixed, formatPlain } from '@barys/core/text';
import { convertPressure, isPressureUnit, unitLabel, type PressureUnit } from '@barys/core/units';
import type { Worked } from '@barys/core/working';
import type { Body } from '@barys/store/registers';
import Papa from 'papaparse';
import { numberAt, orFault, type Fault } from '../typed';
import type { RangeChangeFields } from './fields';

export type Ends = readonly [low: number, high: number];

export interface RangeChange {
  readonly unit: PressureUnit;
  readonly before: Ends;
  readonly after: Ends;
  readonly body: Body | null;
  /** In the body's unit; null where no body is chosen. */
  readonly judged: { readonly before: RangeJudgement; readonly after: RangeJudgement } | null;
  readonly accuracy: { readonly before: number | null; readonly after: number | null };
  /** Where the work is done: at the instrument, or where bodies and linkages are exchanged. */
  readonly where: 'field' | 'shop' | 'nowhere';
  readonly candidates: readonly Candidate<Body>[];
}

/** Per cent of span by the formula of the body; null where none is kept, or it says nothing at this span. */
function accuracyAt({ accuracy, upperRangeLimit }: Body, span: number): number | null {
  if (accuracy === '') return null;
  const value = evaluateFormula(parseFormula(accuracy), { span, URL: upperRangeLimit });
  return Number.isFinite(value) ? value : null;
}

const inBody = ({ unit }: Body, from: PressureUnit, [low, high]: Ends): Ends => [
  convertPressure(low, from, unit),
  convertPressure(high, from, unit),
];

/** Another class of the linkage, or another body, is no work for the field. */
function whereOf(body: Body, before: RangeJudgement, after: RangeJudgement): RangeChange['where'] {
  if (after.breaches.length > 0) return 'nowhere';
  if (body.spanClasses.length === 0) return 'field';
  if (after.classes.length === 0) return 'nowhere';
  return after.classes.some((one) => before.classes.includes(one)) ? 'field' : 'shop';
}

/** @throws CoreError at the field that is wrong */
function change(fields: RangeChangeFields, bodies: readonly Body[]): RangeChange {
  const unit: PressureUnit = isPressureUnit(fields.unit) ? fields.unit : 'mbar';
  const before: Ends = [
    numberAt(fields, 'oldLow', 'The old lower range value'),
    numberAt(fields, 'oldHigh', 'The old upper range value'),
  ];
  const after: Ends = [
    numberAt(fields, 'newLow', 'The new lower range value'),
    numberAt(fields, 'newHigh', 'The new upper range value'),
  ];
  for (const [name, [low, high]] of [
    ['oldHigh', before],
    ['newHigh', after],
  ] as const)
    if (low === high) throw new CoreError({ code: 'zero-span', name: 'The range', value: low }, name);
  const body = bodies.find(({ id }) => String(id) === fields.body) ?? null;
  const judged = body && {
    before: judgeRange(body, ...inBody(body, unit, before)),
    after: judgeRange(body, ...inBody(body, unit, after)),
  };
  const same =
    body === null
      ? bodies
      : bodies.filter(({ kind, technology }) => kind === body.kind && technology === body.technology);
  return {
    unit,
    before,
    after,
    body,
    judged,
    accuracy: {
      before: body && judged && accuracyAt(body, judged.before.span),
      after: body && judged && accuracyAt(body, judged.after.span),
    },
    where: body && judged ? whereOf(body, judged.before, judged.after) : 'nowhere',
    candidates: rankBodies(same, (one) => inBody(one, unit, after), accuracyAt),
  };
}

/** The change, or what is wrong with the fields and at which. */
export const computeChange = (
  fields: RangeChangeFields,
  bodies: readonly Body[],
): RangeChange | Fault<keyof RangeChangeFields> => orFault(fields, {}, () => change(fields, bodies));

const plain = (value: number): string => formatPlain(Number(value.toPrecision(6)));

/** A limit that is not kept, in the unit of the ranges. */
export function breachWords({ limit, allowed, wanted }: RangeBreach, body: Body, unit: PressureUnit): string {
  if (limit === 'zero elevation' || limit === 'zero suppression')
    return `0 % lies ${plain(wanted)} % of span ${limit === 'zero elevation' ? 'below' : 'above'} zero; at most ${plain(allowed)} % are allowed.`;
  const shown = (value: number) => `${plain(convertPressure(value, body.unit, unit))} ${unitLabel(unit)}`;
  const [verb, than] = {
    'lower range limit': ['begins at', 'below the lower range limit'],
    'upper range limit': ['reaches', 'above the upper range limit'],
    'least span': ['has a span of', 'less than the least span'],
    'greatest span': ['has a span of', 'more than the greatest span'],
  }[limit] as [string, string];
  return `The range ${verb} ${shown(wanted)}, ${than} of ${shown(allowed)}.`;
}

export const accuracyWords = (percent: number | null): string =>
  percent === null ? 'not known' : `±${plain(percent)} % of span`;

export const turndownWords = (turndown: number): string => `${formatFixed(turndown, 1)} : 1`;

/** The working of the new range, in the unit of the body. */
export const workingOf = ({ body, after, unit }: RangeChange): Worked['working'] => {
  if (body === null) return [];
  const [lrv, urv] = inBody(body, unit, after);
  return workRange(body, { lrv, urv, unit: unitLabel(body.unit), accuracy: body.accuracy }).working;
};

/** Both ranges, what the body says of them, and the bodies that would do. */
export function csvOfChange({ unit, before, after, judged, accuracy, candidates }: RangeChange): string {
  const figure = (value: number | null) => (value === null ? '' : String(Number(value.toPrecision(8))));
  const row = (
    name: string,
    [lrv, urv]: Ends,
    judgement: RangeJudgement | undefined,
    percent: number | null,
  ) => [
    name,
    figure(lrv),
    figure(urv),
    figure(judgement?.turndown ?? null),
    figure(percent),
    judgement?.breaches.map(({ limit }) => limit).join('; ') ?? '',
  ];
  return Papa.unparse({
    fields: [
      'What',
      `LRV, ${unitLabel(unit)}`,
      `URV, ${unitLabel(unit)}`,
      'Turndown',
      'Accuracy, % of span',
      'Not kept',
    ],
    data: [
      row('now', before, judged?.before, accuracy.before),
      row('new', after, judged?.after, accuracy.after),
      ...candidates.map(({ body, judgement, accuracyPercentOfSpan }) =>
        row(body.model, after, judgement, accuracyPercentOfSpan),
      ),
    ],
  });
}
