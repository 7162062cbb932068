/** What is set in an instrument. Free of PostgreSQL, so that forms in a browser say the same. */
import { CoreError } from '@barys/core/errors';
import { APPLICATIONS, DRIVING_VARIABLES, START_VIEWS, type WantedSetup } from '@barys/core/setup';
import { checkRange, SIGNALS, unitsOfSignal } from '@barys/core/signal';
import { z } from 'zod';
import { pressureUnitSchema, signalSchema } from './body';
import type { Column } from './fields';

const number = (name: string) => z.number({ error: `${name} is a number.` });
const percent = z.number({ error: 'A number is needed here.' });

export const transferSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('linear') }),
  z.strictObject({ kind: z.literal('square-root') }),
  z.strictObject({ kind: z.literal('square-root-cut-off'), cutOffPercentOfFlow: percent }),
  z.strictObject({ kind: z.literal('square-root-linear-start'), linearToPercentOfFlow: percent }),
  z.strictObject({ kind: z.literal('square-root-slope-one'), linearToPercentOfInput: percent }),
  z.strictObject({
    kind: z.literal('table'),
    points: z.array(z.strictObject({ inputPercent: percent, outputPercent: percent })).max(1000),
  }),
]);

const switchingPointSchema = z.strictObject({
  name: z.string().trim().min(1, 'A switching point needs a name.').max(40, 'At most 40 characters, please.'),
  on: number('Where it switches'),
  off: number('Where it goes back'),
});
export const switchingPointsSchema = z
  .array(switchingPointSchema)
  .max(20, 'At most 20 switching points, please.')
  .refine(
    (points) => new Set(points.map(({ name }) => name.toLowerCase())).size === points.length,
    'Two switching points have the same name.',
  )
  .refine(
    (points) => points.every(({ on, off }) => on !== off),
    'A switching point goes back at another value than it switches at.',
  );

const damping = (name: string) => number(name).nonnegative(`${name} must not be negative.`);

/** What is set besides the range; null is what nobody registered, or nobody read. */
const settings = {
  displayDampingS: damping('The damping of the display').nullable().default(null),
  application: z.enum(APPLICATIONS).nullable().default(null),
  startView: z.enum(START_VIEWS).nullable().default(null),
  drivenBy: z.enum(DRIVING_VARIABLES).nullable().default(null),
};

const shape = z.object({
  inputUnit: pressureUnitSchema,
  lrv: number('The lower range value'),
  urv: number('The upper range value'),
  signal: signalSchema,
  outputUnit: z.string().trim().min(1, 'The output needs a unit.').max(20),
  outputLow: number('The output at 0 %'),
  outputHigh: number('The output at 100 %'),
  transferFunction: transferSchema,
  dampingS: damping('The damping'),
  displayUnit: z.string().trim().max(20),
  displayLow: number('The display at 0 %'),
  displayHigh: number('The display at 100 %'),
  /** Between two marks of a scale that is read by eye, in the output unit; null where it is read by a meter. */
  scaleDivision: number('The scale division')
    .positive('The scale division must be greater than zero.')
    .nullable()
    .default(null),
  ...settings,
  switchingPoints: switchingPointsSchema.default([]),
});

/** What was read at an instrument, setting by setting; null is what was not read. */
export const setupReadSchema = z.object({
  ...settings,
  inputUnit: pressureUnitSchema.nullable(),
  lrv: number('The lower range value').nullable(),
  urv: number('The upper range value').nullable(),
  dampingS: damping('The damping').nullable(),
  transferFunction: transferSchema.nullable(),
  displayUnit: z.string().trim().max(20).nullable(),
  displayLow: number('The display at 0 %').nullable(),
  displayHigh: number('The display at 100 %').nullable(),
  switchingPoints: switchingPointsSchema.nullable(),
});

export const configurationSchema = shape
  .extend({ reason: z.string().trim().min(1, 'Say why: the reason stays with this version.').max(500) })
  .superRefine((range, context) => {
    const units = unitsOfSignal(range.signal);
    if (units !== null && !units.includes(range.outputUnit))
      context.addIssue({
        code: 'custom',
        path: ['outputUnit'],
        message: `A signal of ${SIGNALS[range.signal].label} is in ${units.length > 2 ? 'a unit of pressure' : units.join(' or ')}.`,
      });
    try {
      checkRange(range);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      context.addIssue({ code: 'custom', path: (error.field ?? 'urv').split('.'), message: error.message });
    }
  });

/** A run's own copy of a version. Copies made before other signals were known say nothing of signal and transfer. */
export const configurationCopySchema = shape.extend({
  version: z.number().int(),
  signal: signalSchema.default('mA-4-20'),
  transferFunction: transferSchema.default({ kind: 'linear' }),
});

export type NewConfiguration = z.infer<typeof configurationSchema>;

/** The range with its units, and what else is set in the instrument. */
export type Configuration = Readonly<z.output<typeof configurationCopySchema>>;

/** What a file of ranges may leave empty: it then stays as it is set. */
export const SETTING_KEYS = [
  ...(Object.keys(settings) as (keyof typeof settings)[]),
  'switchingPoints',
  'dampingS',
  'scaleDivision',
  'transferFunction',
] as const;
export type SettingOfRange = (typeof SETTING_KEYS)[number];

/** What is written where an instrument has no switching points. */
export const NO_POINTS = 'none';

/** What has to be set at an instrument, for the comparison with what is set. */
export const wantedSetup = (configuration: Configuration, tolerancePercentOfSpan: number): WantedSetup => ({
  ...configuration,
  tolerancePercentOfSpan,
});

/** What standards are chosen for and points are planned on; damping and display can change without them. */
export const RANGE_PARTS = [
  'inputUnit',
  'lrv',
  'urv',
  'signal',
  'outputUnit',
  'outputLow',
  'outputHigh',
  'transferFunction',
] as const;

const partText = (configuration: Configuration, part: (typeof RANGE_PARTS)[number]): string =>
  part === 'transferFunction'
    ? JSON.stringify(transferSchema.parse(configuration.transferFunction))
    : String(configuration[part]);

/** Whether two versions have the same range, output and transfer function. */
export const isSameRange = (a: Configuration, b: Configuration): boolean =>
  RANGE_PARTS.every((part) => partText(a, part) === partText(b, part));

/** A version with who made it, when and why. */
export type ConfigurationVersion = Configuration & {
  readonly madeBy: string;
  readonly madeAt: Date;
  readonly reason: string;
};

/** What a changed range asks besides its figures: each in words, since the record keeps them. */
export const RANGE_QUESTIONS = {
  permit: 'Permit: its number, or why none is needed',
  controller: 'Controller that uses the measurement: in manual, set by whom',
  label: 'Label with the new range: fixed, or by whom and when',
  receivers: 'Receivers told of the new range: control system, recorder, flow computer',
} as const;
export type RangeQuestion = keyof typeof RANGE_QUESTIONS;

/** Where each part of a version is kept; who made it, when and why stand beside them. */
export const CONFIGURATION_COLUMNS = {
  inputUnit: { column: 'input_unit', type: 'text' },
  lrv: { column: 'lrv', type: 'numeric' },
  urv: { column: 'urv', type: 'numeric' },
  signal: { column: 'signal', type: 'text' },
  outputUnit: { column: 'output_unit', type: 'text' },
  outputLow: { column: 'output_low', type: 'numeric' },
  outputHigh: { column: 'output_high', type: 'numeric' },
  transferFunction: { column: 'transfer_function', type: 'jsonb' },
  dampingS: { column: 'damping_s', type: 'numeric' },
  displayUnit: { column: 'display_unit', type: 'text' },
  displayLow: { column: 'display_low', type: 'numeric' },
  displayHigh: { column: 'display_high', type: 'numeric' },
  scaleDivision: { column: 'scale_division', type: 'numeric' },
  displayDampingS: { column: 'display_damping_s', type: 'numeric' },
  application: { column: 'application', type: 'text' },
  startView: { column: 'start_view', type: 'text' },
  drivenBy: { column: 'driven_by', type: 'text' },
  switchingPoints: { column: 'switching_points', type: 'jsonb' },
  reason: { column: 'reason', type: 'text' },
} as const satisfies Record<keyof NewConfiguration, Column>;
