/** Instruments as the plant knows them. What is set in one is its configuration, what it is made of its body. */
import { ARRANGEMENTS, type Arrangement } from '@barys/core/hookup';
import { PRESSURE_KINDS, type PressureKind } from '@barys/core/units';
import { z } from 'zod';
import { appendAllToTrail, appendToTrail } from '../db/audit';
import { BODY_JSON, type Body } from './bodies';
import {
  addConfiguration,
  CONFIGURATION_JSON,
  toVersion,
  type ConfigurationVersion,
  type NewConfiguration,
} from './configurations';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';
import { PROCEDURE_JOIN, PROCEDURE_JSON, type ProcedureInForce } from './procedures';

export const CRITICALITIES = ['safety function', 'quality', 'environment', 'general'] as const;
export const MEASURES = ['pressure', 'differential pressure', 'level', 'flow', 'vacuum'] as const;
export const STATES = ['in service', 'spare', 'out', 'retired'] as const;
/** Hazards that are asked for by name; others are written out. */
export const HAZARDS = ['toxic', 'hot', 'oxygen', 'hazardous area', 'high pressure'] as const;

const text = (most: number) => z.string().trim().max(most, `At most ${most} characters, please.`);

export const instrumentSchema = z.object({
  tag: z
    .string()
    .trim()
    .toUpperCase()
    .regex(
      /^[A-Z0-9][A-Z0-9-]{1,31}$/,
      'A tag is 2 to 32 letters, digits and hyphens, and begins with no hyphen.',
    ),
  serial: text(60),
  service: text(120).min(1, 'Say what the instrument serves.'),
  description: text(500),
  site: text(60),
  area: text(60).min(1, 'An area is needed: the walk is ordered by it.'),
  /** Place in the walk through the area; null where none is given. */
  walk: z
    .number({ error: 'The place in the walk is a whole number.' })
    .int('The place in the walk is a whole number.')
    .min(1, 'The place in the walk counts from 1.')
    .max(99999)
    .nullable(),
  hazards: z.array(text(80).min(1)).max(20),
  loop: text(32),
  criticality: z.enum(CRITICALITIES),
  measures: z.enum(MEASURES),
  kind: z.enum(PRESSURE_KINDS),
  /** How it hangs on its process, which decides the order of the valves. */
  hookUp: z.enum(ARRANGEMENTS),
  bodyId: z.number({ error: 'Choose a body from the list.' }).int().positive('Choose a body from the list.'),
  procedureId: z
    .number({ error: 'Choose a procedure from the list.' })
    .int()
    .positive('Choose a procedure from the list.'),
  /** The tolerance as it is registered: a largest error either way, per cent of the absolute output span. */
  tolerance: z
    .object({
      percentOfSpan: z
        .number({ error: 'The tolerance is a number.' })
        .nonnegative('The tolerance must not be negative.')
        .max(100, 'A tolerance is at most 100 % of span.'),
      /** In the middle half of the scale, where it is another one there; null where it is the same all over. */
      middlePercentOfSpan: z
        .number({ error: 'The tolerance in the middle of the scale is a number.' })
        .positive('The tolerance in the middle of the scale must be greater than zero.')
        .max(100, 'A tolerance is at most 100 % of span.')
        .nullable()
        .default(null),
      /** Added to it, per cent of the applied value. */
      percentOfReading: z
        .number({ error: 'The tolerance in % of reading is a number.' })
        .nonnegative('The tolerance in % of reading must not be negative.')
        .max(1000, 'A tolerance is at most 1000 % of reading.')
        .default(0),
      /** Above this part of the limit an adjustment is advised, per cent of the limit. */
      adjustAbovePercentOfLimit: z
        .number({ error: 'The adjust limit is a number.' })
        .positive('The adjust limit must be greater than zero.')
        .max(100, 'The adjust limit is at most 100 % of the tolerance.'),
    })
    .superRefine(({ percentOfSpan, middlePercentOfSpan, percentOfReading }, context) => {
      if (percentOfSpan === 0 && (percentOfReading === 0 || middlePercentOfSpan !== null))
        context.addIssue({
          code: 'custom',
          path: ['percentOfSpan'],
          message: 'The tolerance must be greater than zero.',
        });
    }),
  intervalMonths: z
    .number({ error: 'The interval is a whole number of months.' })
    .int('The interval is a whole number of months.')
    .min(1, 'The interval is at least one month.')
    .max(240, 'The interval is at most 240 months.'),
  /** ISO date of the next calibration. */
  dueOn: z.iso.date('The due date is a date, such as 2026-03-31.'),
  owner: text(60),
  state: z.enum(STATES),
});

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

const INSTRUMENT_SQL = `
  select instrument.id, instrument.revision, tag, serial, service, description, site, area, walk, hazards, loop,
    criticality, measures, kind, hook_up as "hookUp", owner, state,
    json_build_object('percentOfSpan', tolerance_percent_of_span,
      'middlePercentOfSpan', tolerance_middle_percent_of_span, 'percentOfReading', tolerance_percent_of_reading,
      'adjustAbovePercentOfLimit', adjust_above_percent_of_limit) as tolerance,
    interval_months as "intervalMonths", due_on as "dueOn",
    ${BODY_JSON} as body, ${CONFIGURATION_JSON} as configuration, ${PROCEDURE_JSON} as procedure
  from instrument
    join body on body.id = body_id
    ${PROCEDURE_JOIN}
    join lateral (
      select * from configuration where instrument_id = instrument.id order by version desc limit 1
    ) configuration on true`;

export const toInstrument = (row: Instrument): Instrument => ({
  ...row,
  configuration: toVersion(row.configuration),
});

/** The tag that an instrument has today which had this one before; null where none had. */
export async function tagToday(db: Queryable, formerTag: string): Promise<string | null> {
  const [row] = await db.query<{ tag: string }>(
    `select instrument.tag from instrument_former_tag former join instrument on instrument.id = instrument_id
     where former.tag = upper($1) order by until desc, former.id desc limit 1`,
    [formerTag],
  );
  return row?.tag ?? null;
}

/** @throws StoreError `no-such` */
export async function findInstrument(
  db: Queryable,
  key: { tag: string } | { id: number },
): Promise<Instrument> {
  const [column, value] = 'tag' in key ? ['tag', key.tag] : ['instrument.id', key.id];
  const [row] = await db.query<Instrument>(`${INSTRUMENT_SQL} where ${column} = $1`, [value]);
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'instrument', name: value });
  return toInstrument(row);
}

/** Instruments in service in the order they come due. */
export async function instrumentsDueNext(db: Queryable, limit: number): Promise<Instrument[]> {
  const rows = await db.query<Instrument>(
    `${INSTRUMENT_SQL} where state = 'in service' order by due_on, tag limit $1`,
    [limit],
  );
  return rows.map(toInstrument);
}

/** Several instruments, in the order of the walk. */
export async function instrumentsOf(db: Queryable, ids: readonly number[]): Promise<Instrument[]> {
  const rows = await db.query<Instrument>(
    `${INSTRUMENT_SQL} where instrument.id = any($1) order by area, walk, tag`,
    [ids],
  );
  return rows.map(toInstrument);
}

export interface DueLine {
  readonly tag: string;
  readonly service: string;
  readonly dueOn: string;
}

/** Instruments in service that are due by a date, the first first. */
export function dueBy(db: Queryable, date: string, limit: number): Promise<DueLine[]> {
  return db.query<DueLine>(
    `select tag, service, due_on as "dueOn" from instrument
     where state = 'in service' and due_on <= $1 order by due_on, tag limit $2`,
    [date, limit],
  );
}

const COLUMNS = `tag, serial, service, description, site, area, walk, hazards, loop, criticality, measures, kind,
  hook_up, body_id, procedure_id, tolerance_percent_of_span, tolerance_middle_percent_of_span, tolerance_percent_of_reading,
  adjust_above_percent_of_limit, interval_months, due_on, owner, state`;

const valuesOf = (entry: NewInstrument): unknown[] => [
  entry.tag,
  entry.serial,
  entry.service,
  entry.description,
  entry.site,
  entry.area,
  entry.walk,
  entry.hazards,
  entry.loop,
  entry.criticality,
  entry.measures,
  entry.kind,
  entry.hookUp,
  entry.bodyId,
  entry.procedureId,
  entry.tolerance.percentOfSpan,
  entry.tolerance.middlePercentOfSpan,
  entry.tolerance.percentOfReading,
  entry.tolerance.adjustAbovePercentOfLimit,
  entry.intervalMonths,
  entry.dueOn,
  entry.owner,
  entry.state,
];

async function requireParts(tx: Queryable, { bodyId, procedureId }: NewInstrument): Promise<void> {
  const [body] = await tx.query('select from body where id = $1', [bodyId]);
  if (body === undefined) throw new StoreError({ code: 'no-such', what: 'body', name: bodyId });
  const [procedure] = await tx.query('select from procedure where id = $1', [procedureId]);
  if (procedure === undefined)
    throw new StoreError({ code: 'no-such', what: 'procedure', name: procedureId });
}

/**
 * Enters an instrument with its first configuration.
 * @throws StoreError `taken`, `no-such` body, `range-unfit`, `unknown-person`, `not-allowed`
 */
export async function addInstrument(
  tx: Queryable,
  actor: Actor,
  entry: NewInstrument,
  configuration: NewConfiguration,
): Promise<number> {
  await requireKeeper(tx, actor);
  await requireParts(tx, entry);
  const [row] = await refuseTaken({ what: 'instrument', name: entry.tag }, () =>
    tx.query<{ id: number }>(
      `insert into instrument (${COLUMNS})
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20,
         $21, $22, $23) returning id`,
      valuesOf(entry),
    ),
  );
  const id = row?.id ?? 0;
  await appendToTrail(tx, actor, {
    act: 'add instrument',
    subject: { kind: 'instrument', id },
    detail: { ...entry },
  });
  await addConfiguration(tx, actor, id, configuration);
  return id;
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

/**
 * Changes the register entry of an instrument; its configuration is changed by a new version only.
 * @param revision the one that was being edited
 * @throws StoreError `changed-meanwhile`, `taken`, `no-such`, `unknown-person`, `not-allowed`
 */
export async function changeInstrument(
  tx: Queryable,
  actor: Actor,
  id: number,
  revision: number,
  entry: NewInstrument,
): Promise<void> {
  await requireKeeper(tx, actor);
  await requireParts(tx, entry);
  const before = await findInstrument(tx, { id });
  const changed = await refuseTaken({ what: 'instrument', name: entry.tag }, () =>
    tx.query(
      `update instrument set (${COLUMNS}, revision) =
         ($3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20, $21, $22, $23,
          $24, $25, revision + 1)
       where id = $1 and revision = $2 returning id`,
      [id, revision, ...valuesOf(entry)],
    ),
  );
  if (changed.length === 0) throw new StoreError({ code: 'changed-meanwhile', what: before.tag });
  if (before.tag !== entry.tag)
    await tx.query('insert into instrument_former_tag (instrument_id, tag, until) values ($1, $2, $3)', [
      id,
      before.tag,
      actor.at,
    ]);
  const old = entryOf(before);
  const differing = (Object.keys(entry) as (keyof NewInstrument)[]).filter(
    (name) => JSON.stringify(old[name]) !== JSON.stringify(entry[name]),
  );
  await appendToTrail(tx, actor, {
    act: 'change instrument',
    subject: { kind: 'instrument', id },
    detail: Object.fromEntries(differing.map((name) => [name, { before: old[name], after: entry[name] }])),
  });
}

/**
 * Gives several instruments one owner.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function assignOwner(
  tx: Queryable,
  actor: Actor,
  ids: readonly number[],
  owner: string,
): Promise<void> {
  await requireKeeper(tx, actor);
  const changed = await tx.query<{ id: number; before: string }>(
    `update instrument set owner = $2, revision = instrument.revision + 1
     from (select id, owner from instrument where id = any($1) order by id for no key update) old
     where instrument.id = old.id and old.owner <> $2 returning instrument.id, old.owner as before`,
    [ids, owner],
  );
  await appendAllToTrail(
    tx,
    actor,
    changed.map(({ id, before }) => ({
      act: 'change instrument',
      subject: { kind: 'instrument', id },
      detail: { owner: { before, after: owner } },
    })),
  );
}
