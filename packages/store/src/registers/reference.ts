/**
 * What a reference standard is. A reference is what is carried: one case, one certificate at a time. It measures with
 * its modules; most of the code deals in a usable range, which is one module with its reference's certificate in force.
 */
import { isPressureUnit, PRESSURE_KINDS, type PressureKind } from '@barys/core/units';
import { z } from 'zod';

export const REFERENCE_STATES = ['in use', 'away', 'out', 'retired'] as const;
export const REFERENCE_QUANTITIES = ['pressure', 'current', 'voltage'] as const;
export type ReferenceQuantity = (typeof REFERENCE_QUANTITIES)[number];

const text = (most: number) => z.string().trim().max(most, `At most ${most} characters, please.`);
const number = (name: string) => z.number({ error: `${name} is a number.` });
const amount = (name: string) => number(name).nonnegative(`${name} must not be negative.`);

export const standardSchema = z.object({
  tag: z
    .string()
    .trim()
    .toUpperCase()
    .regex(
      /^[A-Z0-9][A-Z0-9-]{1,31}$/,
      'A tag is 2 to 32 letters, digits and hyphens, and begins with no hyphen.',
    ),
  description: text(120).min(1, 'Say what the reference is.'),
  serial: text(60),
  state: z.enum(REFERENCE_STATES),
  location: text(80),
});

export const moduleSchema = z
  .object({
    /** Empty where the reference has one range. */
    name: text(60),
    quantity: z.enum(REFERENCE_QUANTITIES),
    kind: z.enum(PRESSURE_KINDS),
    unit: text(30),
    rangeLow: number('The lower end of the range'),
    rangeHigh: number('The upper end of the range'),
    resolution: number('The resolution').positive('The resolution must be greater than zero.'),
    percentOfReading: amount('% of reading'),
    percentOfRange: amount('% of range'),
    /** In the unit of the reading. */
    floor: amount('The floor'),
    driftPercentOfReadingPerYear: amount('The drift'),
    percentOfReadingPerK: amount('The temperature term'),
    isActive: z.boolean(),
  })
  .superRefine((entry, context) => {
    const refuse = (path: string, message: string) =>
      context.addIssue({ code: 'custom', path: [path], message });
    if (entry.quantity === 'pressure' && !isPressureUnit(entry.unit))
      refuse('unit', 'A pressure unit with its reference is needed, such as kPa or inH2O at 4 °C.');
    if (entry.quantity === 'current' && entry.unit !== 'mA') refuse('unit', 'A current is in mA.');
    if (entry.quantity === 'voltage' && entry.unit !== 'V') refuse('unit', 'A voltage is in V.');
    if (entry.rangeLow >= entry.rangeHigh)
      refuse('rangeHigh', 'The upper end of the range must be above the lower one.');
    if (entry.percentOfReading + entry.percentOfRange + entry.floor === 0)
      refuse(
        'percentOfRange',
        'At least one of % of reading, % of range and floor must be greater than zero.',
      );
  });

/** What a certificate says of one range at one point, in the unit of the range. */
export const certificateResultSchema = z.object({
  /** What the standard read. */
  at: number('What the standard read'),
  /** True value minus reading. */
  correction: number('The correction'),
  /** Expanded, k = 2. */
  uncertainty: number('The expanded uncertainty').positive(
    'The expanded uncertainty must be greater than zero.',
  ),
});
export type CertificateResult = Readonly<z.infer<typeof certificateResultSchema>>;

/** The points of one range, in rising order. */
const resultsOfRangeSchema = z
  .object({
    moduleId: z.number().int().positive(),
    /** Which the figures stand in: the one of the range, as whoever entered them saw it. */
    unit: text(30),
    points: z.array(certificateResultSchema).max(100),
  })
  .refine(({ points }) => points.every(({ at }, index) => index === 0 || at > (points[index - 1]?.at ?? 0)), {
    path: ['points'],
    message: 'Each point stands once.',
  });

export const certificateSchema = z
  .object({
    number: text(60).min(1, 'A certificate has a number.'),
    laboratory: text(120),
    calibratedOn: z.iso.date('The day of calibration is a date, such as 2026-03-31.'),
    dueOn: z.iso.date('The due date is a date, such as 2027-03-31.'),
    /** Expanded, k = 2; null where the certificate does not say. */
    uncertaintyPercentOfRange: number('The expanded uncertainty')
      .positive('The expanded uncertainty must be greater than zero.')
      .nullable(),
    /** Range by range; none where the certificate has one figure for all. */
    results: z.array(resultsOfRangeSchema).default([]),
  })
  .refine(({ calibratedOn, dueOn }) => calibratedOn < dueOn, {
    path: ['dueOn'],
    message: 'The due date is after the day of calibration.',
  });

export type NewStandard = z.infer<typeof standardSchema>;
export type NewModule = z.infer<typeof moduleSchema>;
export type NewCertificate = z.input<typeof certificateSchema>;

export interface Certificate extends Readonly<Required<NewCertificate>> {
  readonly id: number;
  readonly fileName: string;
  readonly enteredBy: string | null;
}

export interface Standard extends Readonly<NewStandard> {
  readonly id: number;
  readonly revision: number;
  readonly modules: readonly (NewModule & { readonly id: number })[];
  /** The newest calibration first; that one is in force. */
  readonly certificates: readonly Certificate[];
}

/** A usable range: one module, with its reference and the certificate in force. */
export interface Reference extends Readonly<Omit<NewModule, 'isActive' | 'kind'>> {
  /** Of the module. */
  readonly id: number;
  readonly kind: PressureKind;
  readonly tag: string;
  readonly description: string;
  readonly serial: string;
  readonly state: (typeof REFERENCE_STATES)[number];
  readonly location: string;
  /** Number of the certificate in force; empty where there is none, and then there are no dates either. */
  readonly certificate: string;
  readonly calibratedOn: string | null;
  readonly dueOn: string | null;
  readonly uncertaintyPercentOfRange: number | null;
  /** What the certificate in force says of this range, in rising order; empty where it has one figure for all. */
  readonly results: readonly CertificateResult[];
  /** The day it was found wrong, while nobody has released it; else null. */
  readonly heldSince: string | null;
}
