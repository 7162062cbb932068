/**
 * Reference standards. A reference is what is carried: one case, one certificate at a time. It measures with its
 * modules; most of the code deals in a usable range, which is one module with its reference's certificate in force.
 */
import { isPressureUnit, PRESSURE_KINDS, type PressureKind } from '@barys/core/units';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';

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
  .object({ moduleId: z.number().int().positive(), points: z.array(certificateResultSchema).max(100) })
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

/** The points of a certificate for one range, as JSON. */
const resultsSql = (certificate: string, module: string): string => `coalesce((
    select json_agg(json_build_object('at', at, 'correction', correction, 'uncertainty', uncertainty) order by at)
    from certificate_result where certificate_id = ${certificate} and module_id = ${module}), '[]')`;

const REFERENCE_SQL = `
  select module.id, tag, description, serial, state, location, name, quantity, pressure_kind as kind, unit,
    range_low as "rangeLow", range_high as "rangeHigh", resolution, percent_of_reading as "percentOfReading",
    percent_of_range as "percentOfRange", floor,
    drift_percent_of_reading_per_year as "driftPercentOfReadingPerYear",
    percent_of_reading_per_k as "percentOfReadingPerK", coalesce(number, '') as certificate,
    calibrated_on as "calibratedOn", due_on as "dueOn", uncertainty_percent_of_range as "uncertaintyPercentOfRange",
    ${resultsSql('certificate.id', 'module.id')} as results,
    (select max(found_on) from reference_finding finding where finding.module_id = module.id
       and not exists (select from finding_release where finding_id = finding.id)) as "heldSince"
  from reference_module module
    join reference_standard standard on standard.id = reference_id
    left join lateral (
      select id, number, calibrated_on, due_on, uncertainty_percent_of_range from reference_certificate
      where reference_certificate.reference_id = standard.id order by calibrated_on desc, id desc limit 1
    ) certificate on true`;

/** All usable ranges. */
export function listReferences(db: Queryable): Promise<Reference[]> {
  return db.query<Reference>(`${REFERENCE_SQL} where is_active order by tag, module.id`);
}

/** @throws StoreError `no-such` */
export async function findReference(db: Queryable, moduleId: number): Promise<Reference> {
  const [row] = await db.query<Reference>(`${REFERENCE_SQL} where module.id = $1`, [moduleId]);
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'reference', name: moduleId });
  return row;
}

export interface DueReference extends Pick<Reference, 'tag' | 'description' | 'certificate'> {
  readonly dueOn: string;
}

/** References that are not retired and due by a date, the first first. */
export function referencesDueBy(db: Queryable, date: string): Promise<DueReference[]> {
  return db.query<DueReference>(
    `select tag, description, number as certificate, due_on as "dueOn"
     from reference_standard standard
       join lateral (
         select number, due_on from reference_certificate
         where reference_certificate.reference_id = standard.id order by calibrated_on desc, id desc limit 1
       ) certificate on true
     where state <> 'retired' and due_on <= $1 order by due_on, tag`,
    [date],
  );
}

/** @throws StoreError `no-such` */
export async function findStandard(db: Queryable, tag: string): Promise<Standard> {
  const [standard] = await db.query<Omit<Standard, 'modules' | 'certificates'>>(
    'select id, revision, tag, description, serial, state, location from reference_standard where tag = $1',
    [tag],
  );
  if (standard === undefined) throw new StoreError({ code: 'no-such', what: 'reference', name: tag });
  const modules = await db.query<NewModule & { id: number }>(
    `select id, name, quantity, pressure_kind as kind, unit, range_low as "rangeLow", range_high as "rangeHigh",
         resolution, percent_of_reading as "percentOfReading", percent_of_range as "percentOfRange", floor,
         drift_percent_of_reading_per_year as "driftPercentOfReadingPerYear",
         percent_of_reading_per_k as "percentOfReadingPerK", is_active as "isActive"
       from reference_module where reference_id = $1 order by id`,
    [standard.id],
  );
  const certificates = await db.query<Certificate>(
    `select reference_certificate.id, number, laboratory, calibrated_on as "calibratedOn", due_on as "dueOn",
         uncertainty_percent_of_range as "uncertaintyPercentOfRange", file_name as "fileName",
         coalesce((
           select json_agg(json_build_object('moduleId', module.id, 'points',
             ${resultsSql('reference_certificate.id', 'module.id')}) order by module.id)
           from reference_module module where module.id in
             (select module_id from certificate_result where certificate_id = reference_certificate.id)), '[]') as results,
         name_at(entered_by, entered_at) as "enteredBy"
       from reference_certificate
       where reference_id = $1 order by calibrated_on desc, reference_certificate.id desc`,
    [standard.id],
  );
  return { ...standard, modules, certificates };
}

/** @throws StoreError `taken`, `unknown-person`, `not-allowed` */
export async function addStandard(tx: Queryable, actor: Actor, entry: NewStandard): Promise<number> {
  await requireKeeper(tx, actor);
  const [row] = await refuseTaken({ what: 'reference', name: entry.tag }, () =>
    tx.query<{ id: number }>(
      `insert into reference_standard (tag, description, serial, state, location)
       values ($1, $2, $3, $4, $5) returning id`,
      [entry.tag, entry.description, entry.serial, entry.state, entry.location],
    ),
  );
  const id = row?.id ?? 0;
  await appendToTrail(tx, actor, {
    act: 'add reference',
    subject: { kind: 'reference', id },
    detail: { ...entry },
  });
  return id;
}

/**
 * Changes what is said of a reference. Its tag stays: runs are found by it.
 * @throws StoreError `changed-meanwhile`, `unknown-person`, `not-allowed`
 */
export async function changeStandard(
  tx: Queryable,
  actor: Actor,
  { id, revision, tag }: Pick<Standard, 'id' | 'revision' | 'tag'>,
  entry: Omit<NewStandard, 'tag'>,
): Promise<void> {
  await requireKeeper(tx, actor);
  const changed = await tx.query(
    `update reference_standard set description = $3, serial = $4, state = $5, location = $6, revision = revision + 1
     where id = $1 and revision = $2 returning id`,
    [id, revision, entry.description, entry.serial, entry.state, entry.location],
  );
  if (changed.length === 0) throw new StoreError({ code: 'changed-meanwhile', what: tag });
  await appendToTrail(tx, actor, {
    act: 'change reference',
    subject: { kind: 'reference', id },
    detail: { ...entry },
  });
}

const MODULE_COLUMNS = `name, quantity, pressure_kind, unit, range_low, range_high, resolution, percent_of_reading,
  percent_of_range, floor, drift_percent_of_reading_per_year, percent_of_reading_per_k, is_active`;

const moduleValues = (entry: NewModule): unknown[] => [
  entry.name,
  entry.quantity,
  entry.kind,
  entry.unit,
  entry.rangeLow,
  entry.rangeHigh,
  entry.resolution,
  entry.percentOfReading,
  entry.percentOfRange,
  entry.floor,
  entry.driftPercentOfReadingPerYear,
  entry.percentOfReadingPerK,
  entry.isActive,
];

/**
 * Adds a module to a reference, or changes one of its modules. Runs keep their own copy of what it was.
 * @throws StoreError `no-such`, `taken`, `unit-stays`, `unknown-person`, `not-allowed`
 */
export async function keepModule(
  tx: Queryable,
  actor: Actor,
  standardId: number,
  moduleId: number | null,
  entry: NewModule,
): Promise<number> {
  await requireKeeper(tx, actor);
  if (moduleId !== null) await requireUnit(tx, moduleId, entry.unit);
  const [row] = await refuseTaken({ what: 'module', name: entry.name }, () =>
    moduleId === null
      ? tx.query<{ id: number }>(
          `insert into reference_module (reference_id, ${MODULE_COLUMNS})
           values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14) returning id`,
          [standardId, ...moduleValues(entry)],
        )
      : tx.query<{ id: number }>(
          `update reference_module set (${MODULE_COLUMNS}) =
             ($3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)
           where reference_id = $1 and id = $2 returning id`,
          [standardId, moduleId, ...moduleValues(entry)],
        ),
  );
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'module', name: moduleId ?? '' });
  await appendToTrail(tx, actor, {
    act: moduleId === null ? 'add module' : 'change module',
    subject: { kind: 'reference', id: standardId },
    detail: { module: row.id, ...entry },
  });
  return row.id;
}

/** What certificates say of a range stands in its unit, which therefore stays. */
async function requireUnit(tx: Queryable, moduleId: number, unit: string): Promise<void> {
  const [other] = await tx.query<{ unit: string }>(
    `select unit from reference_module where id = $1 and unit <> $2
       and exists (select from certificate_result where module_id = $1)`,
    [moduleId, unit],
  );
  if (other !== undefined) throw new StoreError({ code: 'unit-stays', unit: other.unit });
}

export interface AttachedFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/**
 * Enters a certificate; the newest calibration is in force from now on.
 * @throws StoreError `no-such` of a range that is another reference's, `unknown-person`, `not-allowed`
 */
export async function addCertificate(
  tx: Queryable,
  actor: Actor,
  standardId: number,
  entry: NewCertificate,
  file: AttachedFile | null,
): Promise<void> {
  await requireKeeper(tx, actor);
  const [added] = await tx.query<{ id: number }>(
    `insert into reference_certificate (reference_id, number, laboratory, calibrated_on, due_on,
       uncertainty_percent_of_range, file_name, file, entered_by, entered_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) returning id`,
    [
      standardId,
      entry.number,
      entry.laboratory,
      entry.calibratedOn,
      entry.dueOn,
      entry.uncertaintyPercentOfRange,
      file?.name ?? '',
      file?.bytes ?? null,
      actor.personId,
      actor.at,
    ],
  );
  for (const { moduleId, points } of entry.results ?? []) {
    const kept = await tx.query(
      `insert into certificate_result (certificate_id, module_id, at, correction, uncertainty)
       select $1, module.id, point.at, point.correction, point.uncertainty
       from reference_module module,
         json_to_recordset($4) as point (at numeric, correction numeric, uncertainty numeric)
       where module.id = $2 and module.reference_id = $3 returning id`,
      [added?.id, moduleId, standardId, JSON.stringify(points)],
    );
    if (kept.length < points.length)
      throw new StoreError({ code: 'no-such', what: 'module', name: moduleId });
  }
  await appendToTrail(tx, actor, {
    act: 'add certificate',
    subject: { kind: 'reference', id: standardId },
    detail: { ...entry, file: file?.name ?? null },
  });
}

/** The file attached to a certificate. @throws StoreError `no-such` */
export async function fileOfCertificate(db: Queryable, certificateId: number): Promise<AttachedFile> {
  const [row] = await db.query<AttachedFile>(
    'select file_name as name, file as bytes from reference_certificate where id = $1 and file is not null',
    [certificateId],
  );
  if (row === undefined)
    throw new StoreError({ code: 'no-such', what: 'file of certificate', name: certificateId });
  return row;
}
