/** What a model of transmitter or gauge is. Free of PostgreSQL, so that forms in a browser say the same. */
import { TECHNOLOGIES, TRIMS } from '@barys/core/adjust';
import { judgeRange } from '@barys/core/ranging';
import { SIGNALS, type SignalName } from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import { convertPressure, PRESSURE_KINDS, PRESSURE_UNITS, type PressureUnit } from '@barys/core/units';
import { z } from 'zod';

/** Newton metres in the units that a plant's wrenches are marked in (exact: 0.3048 m, 4.4482216152605 N). */
export const TORQUE_UNITS = {
  N·m: 1,
  lbf·ft: 1 / (0.3048 * 4.4482216152605),
  lbf·in: 12 / (0.3048 * 4.4482216152605),
} as const;
export type TorqueUnit = keyof typeof TORQUE_UNITS;

/** A torque of a checklist in a unit, to three digits, as wrenches are set. */
export const torqueWords = (torqueNm: number, unit: TorqueUnit): string =>
  `${formatPlain(Number((torqueNm * TORQUE_UNITS[unit]).toPrecision(3)))} ${unit}`;

const keysOf = <K extends string>(table: Readonly<Record<K, unknown>>): K[] => Object.keys(table) as K[];

export const pressureUnitSchema = z.enum(keysOf<PressureUnit>(PRESSURE_UNITS), {
  error: 'A pressure unit with its reference is needed, such as kPa or inH2O at 4 °C.',
});
export const signalSchema = z.enum(keysOf<SignalName>(SIGNALS), { error: 'Choose a signal from the list.' });

const number = (name: string) => z.number({ error: `${name} is a number.` });
const positive = (name: string) => number(name).positive(`${name} must be greater than zero.`);

const shift = (name: string) =>
  number(name).nonnegative(`${name} must not be negative.`).nullable().default(null);

/** All but the formula of the accuracy, which takes a parser to check. */
export const bodyShape = z
  .object({
    model: z.string().trim().min(1, 'A body needs the name of its model.').max(80),
    kind: z.enum(PRESSURE_KINDS),
    technology: z.enum(TECHNOLOGIES),
    unit: pressureUnitSchema,
    lowerRangeLimit: number('The lower range limit'),
    upperRangeLimit: number('The upper range limit'),
    leastSpan: positive('The least span'),
    /** Null is as wide as the limits allow. */
    greatestSpan: positive('The greatest span').nullable(),
    /** How far 0 % may lie below zero, and above it, per cent of span; null is as far as the limits allow. */
    greatestElevationPercent: shift('The greatest elevation of zero'),
    greatestSuppressionPercent: shift('The greatest suppression of zero'),
    /** Of a body that is stamped with its largest span only: its least span follows from it. */
    stampedTurndown: number('The turndown').min(1, 'A turndown is at least 1.').nullable().default(null),
    outputs: z.array(signalSchema).min(1, 'Choose at least one output.'),
    trims: z.array(z.enum(TRIMS)),
    /** Classes of span that the linkage is set for; empty where there are none. */
    spanClasses: z.array(
      z.object({
        name: z.string().trim().min(1, 'A span class needs a name.'),
        leastSpan: positive('The least span of a class'),
        greatestSpan: positive('The greatest span of a class'),
      }),
    ),
    /** Per cent of span as a formula in `span` and `URL`, both in the body's unit; empty where it is not known. */
    accuracy: z.string().trim().max(200),
    swapChecklist: z.array(
      z.object({
        step: z.string().trim().min(1, 'A step of the checklist says what to do.').max(200),
        torqueNm: positive('A torque').nullable(),
      }),
    ),
  })
  .superRefine(
    (
      { lowerRangeLimit, upperRangeLimit, leastSpan, greatestSpan, spanClasses, stampedTurndown },
      context,
    ) => {
      const refuse = (path: string, message: string) =>
        context.addIssue({ code: 'custom', path: [path], message });
      const whole = upperRangeLimit - lowerRangeLimit;
      if (whole <= 0) refuse('upperRangeLimit', 'The upper range limit must be above the lower one.');
      else if (leastSpan > whole) refuse('leastSpan', 'The least span is wider than the limits.');
      if (greatestSpan !== null && (greatestSpan < leastSpan || greatestSpan > whole))
        refuse('greatestSpan', 'The greatest span lies between the least span and the width of the limits.');
      if (stampedTurndown !== null && greatestSpan === null)
        refuse('greatestSpan', 'A turndown is counted from the largest span: enter it too.');
      else if (
        stampedTurndown !== null &&
        greatestSpan !== null &&
        Math.abs(leastSpan - greatestSpan / stampedTurndown) > 1e-9 * leastSpan
      )
        refuse(
          'leastSpan',
          `By its stamp the least span is ${formatPlain(greatestSpan / stampedTurndown)}: leave it empty, or take the turndown out.`,
        );
      if (spanClasses.some((one) => one.leastSpan > one.greatestSpan))
        refuse('spanClasses', 'A span class runs from its least span up to its greatest.');
    },
  );

export type NewBody = z.infer<typeof bodyShape>;
export type Body = Readonly<NewBody> & { readonly id: number; readonly revision: number };

/** What a range is checked against. */
export type BodyLimits = Pick<
  Body,
  'model' | 'unit' | 'lowerRangeLimit' | 'upperRangeLimit' | 'leastSpan' | 'greatestSpan'
> &
  Partial<Pick<Body, 'greatestElevationPercent' | 'greatestSuppressionPercent'>>;

/** How far the span can be turned down: the greatest span over the least. */
export const turndownOf = ({
  lowerRangeLimit,
  upperRangeLimit,
  leastSpan,
  greatestSpan,
}: BodyLimits): number => (greatestSpan ?? upperRangeLimit - lowerRangeLimit) / leastSpan;

/** Why a range does not fit a body, in words, or null. */
export function rangeMisfit(body: BodyLimits, unit: PressureUnit, lrv: number, urv: number): string | null {
  const ends = [convertPressure(lrv, unit, body.unit), convertPressure(urv, unit, body.unit)] as const;
  // A range without a span is refused where it is entered.
  if (ends[0] === ends[1]) return `The span is smaller than the least span of the body ${body.model}.`;
  const [breach] = judgeRange({ ...body, spanClasses: [] }, ...ends).breaches;
  const unitWord = PRESSURE_UNITS[body.unit].label;
  switch (breach?.limit) {
    case 'lower range limit':
    case 'upper range limit':
      return `The range reaches outside the limits of the body ${body.model}, ${body.lowerRangeLimit} to ${body.upperRangeLimit} ${unitWord}.`;
    case 'least span':
      return `The span is smaller than the least span of the body ${body.model}, ${body.leastSpan} ${unitWord}.`;
    case 'greatest span':
      return `The span is wider than the greatest span of the body ${body.model}, ${breach.allowed} ${unitWord}.`;
    case 'zero elevation':
    case 'zero suppression':
      return `0 % lies ${formatPlain(Number(breach.wanted.toPrecision(4)))} % of span ${breach.limit === 'zero elevation' ? 'below' : 'above'} zero; the body ${body.model} allows ${formatPlain(breach.allowed)} %.`;
    case undefined:
      return null;
  }
}
