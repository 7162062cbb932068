/**
 * What an instrument is to the plant. Free of PostgreSQL, so that forms and lists in a browser say the same. A field of
 * the register entry is one line here; it also needs its column in a migration and its place in the form.
 */
import { ARRANGEMENTS, HOOK_UPS, type Arrangement } from '@barys/core/hookup';
import { PRESSURE_KINDS, type PressureKind } from '@barys/core/units';
import { z } from 'zod';
import type { Body } from './body';
import type { ConfigurationVersion } from './configuration';
import { schemaOf, type KeyWith, type RegisterField, type RegisterFields } from './fields';
import type { ProcedureInForce } from './procedures';

export const CRITICALITIES = ['safety function', 'quality', 'environment', 'general'] as const;
export type Criticality = (typeof CRITICALITIES)[number];
export const MEASURES = ['pressure', 'differential pressure', 'level', 'flow', 'vacuum'] as const;
export const STATES = ['in service', 'spare', 'out', 'retired'] as const;
export const ISOLATION_TIMES = ['any time', 'in a shutdown'] as const;
/** Hazards that are asked for by name; others are written out. */
export const HAZARDS = ['toxic', 'hot', 'oxygen', 'hazardous area', 'high pressure'] as const;

const text = (most: number) => z.string().trim().max(most, `At most ${most} characters, please.`);
const choice = <T extends string>(values: readonly T[]): Record<string, T> =>
  Object.fromEntries(values.map((value) => [value, value]));

const HOOK_UP_CHOICES = Object.fromEntries(
  ARRANGEMENTS.flatMap((one) => [
    [one, one],
    [HOOK_UPS[one].name.toLowerCase(), one],
  ]),
);

/** The tolerance as it is registered: a largest error either way, per cent of the absolute output span. */
export const TOLERANCE_FIELDS = {
  percentOfSpan: {
    column: 'tolerance_percent_of_span',
    type: 'numeric',
    schema: z
      .number({ error: 'The tolerance is a number.' })
      .nonnegative('The tolerance must not be negative.')
      .max(100, 'A tolerance is at most 100 % of span.'),
    heading: 'Tolerance, % of span',
    known: ['tolerance', 'tolerancepercent', 'accuracy', 'limit'],
    inFile: 'tolerance',
    read: 'number',
    usual: 0.25,
  },
  /** In the middle half of the scale, where it is another one there; null where it is the same all over. */
  middlePercentOfSpan: {
    column: 'tolerance_middle_percent_of_span',
    type: 'numeric',
    schema: z
      .number({ error: 'The tolerance in the middle of the scale is a number.' })
      .positive('The tolerance in the middle of the scale must be greater than zero.')
      .max(100, 'A tolerance is at most 100 % of span.')
      .nullable()
      .default(null),
    heading: 'Tolerance in the middle half, % of span',
    known: ['tolerancemiddle'],
    inFile: 'toleranceMiddle',
    read: 'number',
  },
  /** Added to it, per cent of the applied value. */
  percentOfReading: {
    column: 'tolerance_percent_of_reading',
    type: 'numeric',
    schema: z
      .number({ error: 'The tolerance in % of reading is a number.' })
      .nonnegative('The tolerance in % of reading must not be negative.')
      .max(1000, 'A tolerance is at most 1000 % of reading.')
      .default(0),
    heading: 'Tolerance, % of reading',
    known: ['toleranceofreading'],
    inFile: 'toleranceOfReading',
    read: 'number',
    usual: 0,
  },
  /** Above this part of the limit an adjustment is advised, per cent of the limit. */
  adjustAbovePercentOfLimit: {
    column: 'adjust_above_percent_of_limit',
    type: 'numeric',
    schema: z
      .number({ error: 'The adjust limit is a number.' })
      .positive('The adjust limit must be greater than zero.')
      .max(100, 'The adjust limit is at most 100 % of the tolerance.'),
    heading: 'Adjust above, % of the tolerance',
    known: ['adjustlimit', 'adjust'],
    inFile: 'adjust',
    read: 'number',
    usual: 70,
  },
} as const satisfies RegisterFields;

/** In the order of the columns of a file, where range and output stand behind the body. */
export const INSTRUMENT_FIELDS = {
  tag: {
    column: 'tag',
    type: 'text',
    schema: z
      .string()
      .trim()
      .toUpperCase()
      .regex(
        /^[A-Z0-9][A-Z0-9-]{1,31}$/,
        'A tag is 2 to 32 letters, digits and hyphens, and begins with no hyphen.',
      ),
    heading: 'Tag',
    known: ['tagno', 'tagnumber', 'instrument', 'id', 'tagname', 'kks'],
    isRequired: true,
    isListed: true,
    isCopied: true,
  },
  service: {
    column: 'service',
    type: 'text',
    schema: text(120).min(1, 'Say what the instrument serves.'),
    heading: 'Service',
    known: ['servicedescription', 'loopdescription'],
    isRequired: true,
    isListed: true,
    isCopied: true,
  },
  area: {
    column: 'area',
    type: 'text',
    schema: text(60).min(1, 'An area is needed: the walk is ordered by it.'),
    heading: 'Area',
    known: ['unit', 'location', 'plant', 'building'],
    isRequired: true,
    isListed: true,
    isCopied: true,
  },
  bodyId: {
    column: 'body_id',
    type: 'bigint',
    schema: z
      .number({ error: 'Choose a body from the list.' })
      .int()
      .positive('Choose a body from the list.'),
    heading: 'Body',
    known: ['model', 'type', 'manufacturermodel', 'bodymodel'],
    inFile: 'body',
    isRequired: true,
    exported: 'model',
    read: 'number',
  },
  description: {
    column: 'description',
    type: 'text',
    schema: text(500),
    heading: 'Description',
    known: ['remark', 'remarks', 'note', 'comment'],
    isCopied: true,
  },
  serial: {
    column: 'serial',
    type: 'text',
    schema: text(60),
    heading: 'Serial number',
    known: ['serial', 'serialno', 'sn'],
    isListed: true,
    isCopied: true,
  },
  site: { column: 'site', type: 'text', schema: text(60), heading: 'Site', isCopied: true },
  /** Place in the walk through the area; null where none is given. */
  walk: {
    column: 'walk',
    type: 'integer',
    schema: z
      .number({ error: 'The place in the walk is a whole number.' })
      .int('The place in the walk is a whole number.')
      .min(1, 'The place in the walk counts from 1.')
      .max(99999)
      .nullable(),
    heading: 'Place in the walk',
    known: ['walk', 'route', 'position'],
    read: 'number',
    isListed: true,
  },
  hazards: {
    column: 'hazards',
    type: 'text[]',
    schema: z.array(text(80).min(1)).max(20),
    heading: 'Hazards',
    known: ['hazard'],
    exported: `array_to_string(hazards, '; ')`,
    read: 'list',
    isCopied: true,
  },
  loop: {
    column: 'loop',
    type: 'text',
    schema: text(32),
    heading: 'Loop',
    known: ['loopno'],
    isListed: true,
    isCopied: true,
  },
  criticality: {
    column: 'criticality',
    type: 'text',
    schema: z.enum(CRITICALITIES),
    heading: 'Criticality',
    known: ['priority', 'class'],
    read: choice(CRITICALITIES),
    usual: 'general',
    isListed: true,
    isCopied: true,
  },
  measures: {
    column: 'measures',
    type: 'text',
    schema: z.enum(MEASURES),
    heading: 'Measures',
    known: ['measurement', 'variable', 'measuredvariable'],
    read: choice(MEASURES),
    usual: 'pressure',
    isListed: true,
    isCopied: true,
  },
  kind: {
    column: 'kind',
    type: 'text',
    schema: z.enum(PRESSURE_KINDS),
    heading: 'Kind of pressure',
    known: ['pressurekind', 'gaugeabsolute'],
    read: choice(PRESSURE_KINDS),
    usual: 'gauge',
    isListed: true,
    isCopied: true,
  },
  /** How it hangs on its process, which decides the order of the valves. */
  hookUp: {
    column: 'hook_up',
    type: 'text',
    schema: z.enum(ARRANGEMENTS),
    heading: 'Hook-up',
    known: ['manifold', 'hookup', 'installation'],
    read: HOOK_UP_CHOICES,
    usual: 'block-and-bleed',
    isCopied: true,
  },
  /** When the plant lets it be isolated. */
  canBeIsolated: {
    column: 'can_be_isolated',
    type: 'text',
    schema: z.enum(ISOLATION_TIMES).default('any time'),
    heading: 'Can be isolated',
    known: ['isolation', 'outage'],
    read: choice(ISOLATION_TIMES),
    usual: 'any time',
  },
  /** Name of what is isolated as one: all that have it are done together. */
  isolatedWith: {
    column: 'isolated_with',
    type: 'text',
    schema: text(40).default(''),
    heading: 'Isolated with',
    known: ['isolationgroup'],
  },
  procedureId: {
    column: 'procedure_id',
    type: 'bigint',
    schema: z
      .number({ error: 'Choose a procedure from the list.' })
      .int()
      .positive('Choose a procedure from the list.'),
    heading: 'Procedure',
    inFile: 'procedure',
    exported: 'procedure.name',
    read: 'number',
    usual: 1,
  },
  intervalMonths: {
    column: 'interval_months',
    type: 'integer',
    schema: z
      .number({ error: 'The interval is a whole number of months.' })
      .int('The interval is a whole number of months.')
      .min(1, 'The interval is at least one month.')
      .max(240, 'The interval is at most 240 months.'),
    heading: 'Interval, months',
    known: ['interval', 'intervalmonths', 'frequency', 'cycle'],
    inFile: 'interval',
    read: 'number',
    usual: 12,
    isListed: true,
  },
  /** ISO date of the next calibration. */
  dueOn: {
    column: 'due_on',
    type: 'date',
    schema: z.iso.date('The due date is a date, such as 2026-03-31.'),
    heading: 'Next due',
    known: ['due', 'duedate', 'nextcalibration', 'nextdue'],
    inFile: 'due',
    read: 'date',
    isListed: true,
  },
  owner: {
    column: 'owner',
    type: 'text',
    schema: text(60),
    heading: 'Owner',
    known: ['responsible', 'crew'],
    isListed: true,
  },
  state: {
    column: 'state',
    type: 'text',
    schema: z.enum(STATES),
    heading: 'State',
    known: ['status'],
    read: choice(STATES),
    usual: 'in service',
    isListed: true,
  },
} as const satisfies RegisterFields;

export type ListedField = KeyWith<typeof INSTRUMENT_FIELDS, 'isListed'>;
export type CopiedField = KeyWith<typeof INSTRUMENT_FIELDS, 'isCopied'>;

/** All fields on one level, as files, forms and the table have them. */
export const ALL_INSTRUMENT_FIELDS = { ...INSTRUMENT_FIELDS, ...TOLERANCE_FIELDS };
export type InstrumentField = keyof typeof ALL_INSTRUMENT_FIELDS;

/** The same in the order of a file: the tolerance stands with the procedure that may have one of its own. */
export const FILE_FIELDS: readonly (readonly [InstrumentField, RegisterField])[] = Object.entries(
  INSTRUMENT_FIELDS,
).flatMap(([key, field]) => [
  [key as InstrumentField, field] as const,
  ...(key === 'procedureId'
    ? Object.entries(TOLERANCE_FIELDS).map(([name, one]) => [name as InstrumentField, one] as const)
    : []),
]);

export const instrumentSchema = schemaOf(INSTRUMENT_FIELDS).extend({
  tolerance: schemaOf(TOLERANCE_FIELDS).superRefine(
    ({ percentOfSpan, middlePercentOfSpan, percentOfReading }, context) => {
      if (percentOfSpan === 0 && (percentOfReading === 0 || middlePercentOfSpan !== null))
        context.addIssue({
          code: 'custom',
          path: ['percentOfSpan'],
          message: 'The tolerance must be greater than zero.',
        });
    },
  ),
});

/** An entry on one level. */
export const flatEntry = ({ tolerance, ...entry }: NewInstrument): Record<InstrumentField, unknown> => ({
  ...entry,
  ...tolerance,
});

const KEYS = Object.keys(INSTRUMENT_FIELDS);
const TOLERANCE_KEYS = Object.keys(TOLERANCE_FIELDS);

function pick(flat: Readonly<Record<string, unknown>>, keys: readonly string[]): Record<string, unknown> {
  const picked: Record<string, unknown> = {};
  for (const key of keys) picked[key] = flat[key];
  return picked;
}

/** An entry, not yet checked, from all its fields on one level. */
export const entryOfFlat = (flat: Readonly<Record<InstrumentField, unknown>>): Record<string, unknown> => {
  const entry = pick(flat, KEYS);
  entry['tolerance'] = pick(flat, TOLERANCE_KEYS);
  return entry;
};

/** The arrangement that most instruments of a kind hang on; common practice. */
export const usualHookUp = (kind: PressureKind): Arrangement =>
  kind === 'differential' ? '3-valve' : kind === 'vacuum' ? 'vacuum' : 'block-and-bleed';

export type NewInstrument = z.infer<typeof instrumentSchema>;
export type SpanTolerance = NewInstrument['tolerance'];

export interface Instrument extends Readonly<Omit<NewInstrument, 'bodyId' | 'procedureId'>> {
  readonly id: number;
  readonly revision: number;
  /** How it is calibrated, in the version in force. */
  readonly procedure: ProcedureInForce;
  readonly body: Body;
  /** The configuration in force: the newest version. */
  readonly configuration: ConfigurationVersion;
}

/** The tolerance that counts: the procedure's where it has one, else the instrument's own. */
export function toleranceOf({
  tolerance,
  procedure: { content },
}: Pick<Instrument, 'tolerance' | 'procedure'>): SpanTolerance {
  const own =
    content.tolerancePercentOfSpan === null
      ? tolerance
      : { percentOfSpan: content.tolerancePercentOfSpan, middlePercentOfSpan: null, percentOfReading: 0 };
  return {
    ...own,
    adjustAbovePercentOfLimit: content.adjustAbovePercentOfLimit ?? tolerance.adjustAbovePercentOfLimit,
  };
}

/** What an instrument's register entry says now, for a form and for the trail. */
export function entryOf({
  id: _id,
  revision: _revision,
  procedure,
  configuration: _range,
  body,
  ...entry
}: Instrument): NewInstrument {
  return { ...entry, hazards: [...entry.hazards], bodyId: body.id, procedureId: procedure.id };
}
