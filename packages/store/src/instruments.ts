/** Instruments, their bodies and the versions of their configuration. */
import { convertPressure, isPressureUnit, type SignalRange, type PressureUnit } from '@barys/core';
import { appendToTrail } from './audit';
import type { Queryable } from './database';
import { StoreError } from './errors';
import { requireWorker, type Actor } from './people';

export interface Body {
  readonly model: string;
  readonly unit: PressureUnit;
  readonly lowerRangeLimit: number;
  readonly upperRangeLimit: number;
  readonly leastSpan: number;
}

/** The tolerance of an instrument as it is registered. */
export interface SpanTolerance {
  /** Largest allowed error either way, per cent of the absolute output span. */
  readonly percentOfSpan: number;
  /** Above this part of the limit an adjustment is advised, per cent of the limit. */
  readonly adjustAbovePercentOfLimit: number;
}

/** The range with its units, and what else is set in the instrument. */
export interface Configuration extends SignalRange {
  readonly version: number;
  readonly inputUnit: PressureUnit;
  readonly outputUnit: 'mA';
  readonly transfer: 'linear';
  readonly dampingS: number;
  readonly displayUnit: string;
  readonly displayLow: number;
  readonly displayHigh: number;
}

export interface Instrument {
  readonly id: number;
  readonly tag: string;
  readonly serial: string;
  readonly service: string;
  readonly area: string;
  readonly hazards: readonly string[];
  readonly kind: 'gauge';
  readonly tolerance: SpanTolerance;
  /** Per cents of the input span, rising. */
  readonly testPoints: readonly number[];
  readonly intervalMonths: number;
  /** ISO date of the next calibration. */
  readonly dueOn: string;
  readonly body: Body;
  /** The configuration in force: the newest version. */
  readonly configuration: Configuration & {
    readonly madeBy: string;
    readonly madeAt: Date;
    readonly reason: string;
  };
}

interface InstrumentRow extends Omit<Instrument, 'tolerance'> {
  tolerancePercentOfSpan: number;
  adjustAbovePercentOfLimit: number;
}

const INSTRUMENT_SQL = `
  select instrument.id, tag, serial, service, area, hazards, kind,
    tolerance_percent_of_span as "tolerancePercentOfSpan",
    adjust_above_percent_of_limit as "adjustAbovePercentOfLimit",
    test_points::float8[] as "testPoints", interval_months as "intervalMonths", due_on as "dueOn",
    json_build_object('model', model, 'unit', body.unit, 'lowerRangeLimit', lower_range_limit,
      'upperRangeLimit', upper_range_limit, 'leastSpan', least_span) as body,
    json_build_object('version', version, 'inputUnit', input_unit, 'lrv', lrv, 'urv', urv,
      'outputUnit', output_unit, 'outputLow', output_low, 'outputHigh', output_high, 'transfer', transfer,
      'dampingS', damping_s, 'displayUnit', display_unit, 'displayLow', display_low, 'displayHigh', display_high,
      'madeBy', person.name, 'madeAt', made_at, 'reason', reason) as configuration
  from instrument
    join body on body.id = body_id
    join lateral (
      select * from configuration where instrument_id = instrument.id order by version desc limit 1
    ) configuration on true
    join person on person.id = made_by`;

function toInstrument({
  tolerancePercentOfSpan,
  adjustAbovePercentOfLimit,
  ...row
}: InstrumentRow): Instrument {
  return {
    ...row,
    tolerance: { percentOfSpan: tolerancePercentOfSpan, adjustAbovePercentOfLimit },
    configuration: { ...row.configuration, madeAt: new Date(row.configuration.madeAt) },
  };
}

/** @throws StoreError `no-such` */
export async function findInstrument(
  db: Queryable,
  key: { tag: string } | { id: number },
): Promise<Instrument> {
  const [column, value] = 'tag' in key ? ['tag', key.tag] : ['instrument.id', key.id];
  const [row] = await db.query<InstrumentRow>(`${INSTRUMENT_SQL} where ${column} = $1`, [value]);
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'instrument', name: value });
  return toInstrument(row);
}

/** Instruments in the order they come due. */
export async function listInstruments(db: Queryable, limit: number): Promise<Instrument[]> {
  const rows = await db.query<InstrumentRow>(`${INSTRUMENT_SQL} order by due_on, tag limit $1`, [limit]);
  return rows.map(toInstrument);
}

export async function addBody(tx: Queryable, body: Body): Promise<void> {
  await tx.query(
    'insert into body (model, unit, lower_range_limit, upper_range_limit, least_span) values ($1, $2, $3, $4, $5)',
    [body.model, body.unit, body.lowerRangeLimit, body.upperRangeLimit, body.leastSpan],
  );
}

export interface NewInstrument {
  readonly tag: string;
  readonly serial: string;
  readonly service: string;
  readonly area: string;
  readonly hazards: readonly string[];
  readonly bodyModel: string;
  readonly tolerance: SpanTolerance;
  readonly intervalMonths: number;
  readonly dueOn: string;
}

/**
 * Enters an instrument. It needs a configuration before it can be calibrated.
 * @throws StoreError `no-such` body, `unknown-person`, `not-allowed`
 */
export async function addInstrument(tx: Queryable, actor: Actor, entry: NewInstrument): Promise<number> {
  await requireWorker(tx, actor);
  const [row] = await tx.query<{ id: number }>(
    `insert into instrument (tag, serial, service, area, hazards, body_id, kind, tolerance_percent_of_span,
       adjust_above_percent_of_limit, interval_months, due_on)
     select $1, $2, $3, $4, $5, body.id, 'gauge', $7, $8, $9, $10 from body where model = $6 returning id`,
    [
      entry.tag,
      entry.serial,
      entry.service,
      entry.area,
      entry.hazards,
      entry.bodyModel,
      entry.tolerance.percentOfSpan,
      entry.tolerance.adjustAbovePercentOfLimit,
      entry.intervalMonths,
      entry.dueOn,
    ],
  );
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'body', name: entry.bodyModel });
  await appendToTrail(tx, actor, { act: 'add instrument', subject: { kind: 'instrument', id: row.id } });
  return row.id;
}

/** Why a range does not fit a body, in words, or null. */
export function rangeMisfit(body: Body, unit: PressureUnit, lrv: number, urv: number): string | null {
  const [low, high] = [
    convertPressure(Math.min(lrv, urv), unit, body.unit),
    convertPressure(Math.max(lrv, urv), unit, body.unit),
  ];
  const limits = `${body.lowerRangeLimit} to ${body.upperRangeLimit} ${body.unit}`;
  if (low < body.lowerRangeLimit || high > body.upperRangeLimit)
    return `The range reaches outside the limits of the body ${body.model}, ${limits}.`;
  if (high - low < body.leastSpan)
    return `The span is smaller than the least span of the body ${body.model}, ${body.leastSpan} ${body.unit}.`;
  return null;
}

/**
 * Puts a new version of the configuration in force.
 * @throws StoreError `range-unfit`, `no-such`, `unknown-person`, `not-allowed`
 */
export async function addConfiguration(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
  {
    reason,
    ...entry
  }: Omit<Configuration, 'version' | 'transfer' | 'outputUnit'> & { readonly reason: string },
): Promise<void> {
  await requireWorker(tx, actor);
  if (!isPressureUnit(entry.inputUnit))
    throw new StoreError({ code: 'no-such', what: 'unit', name: entry.inputUnit });
  const [body] = await tx.query<Body>(
    `select model, unit, lower_range_limit as "lowerRangeLimit", upper_range_limit as "upperRangeLimit",
       least_span as "leastSpan"
     from body join instrument on body_id = body.id where instrument.id = $1`,
    [instrumentId],
  );
  if (body === undefined) throw new StoreError({ code: 'no-such', what: 'instrument', name: instrumentId });
  const why = rangeMisfit(body, entry.inputUnit, entry.lrv, entry.urv);
  if (why !== null) throw new StoreError({ code: 'range-unfit', why });
  const [row] = await tx.query<{ version: number }>(
    `insert into configuration (instrument_id, version, input_unit, lrv, urv, output_unit, output_low, output_high,
       transfer, damping_s, display_unit, display_low, display_high, made_by, made_at, reason)
     values ($1, (select coalesce(max(version), 0) + 1 from configuration where instrument_id = $1), $2, $3, $4, 'mA',
       $5, $6, 'linear', $7, $8, $9, $10, $11, $12, $13) returning version`,
    [
      instrumentId,
      entry.inputUnit,
      entry.lrv,
      entry.urv,
      entry.outputLow,
      entry.outputHigh,
      entry.dampingS,
      entry.displayUnit,
      entry.displayLow,
      entry.displayHigh,
      actor.personId,
      actor.at,
      reason,
    ],
  );
  await appendToTrail(tx, actor, {
    act: 'configure instrument',
    subject: { kind: 'instrument', id: instrumentId },
    detail: { version: row?.version, ...entry },
  });
}
