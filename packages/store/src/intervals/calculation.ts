/**
 * The calculation of all advice: asked for by a planner, worked through in the background batch by batch, watched and stopped from
 * any page. Each batch is kept in a transaction of its own that also looks whether it was stopped.
 */
import { Changes, type Difference } from '@barys/core/drift';
import { appendToTrail } from '../db/audit';
import type { Database, Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireScheduler } from '../people/people';
import type { Configuration } from '../registers/configuration';
import { CONFIGURATION_JSON } from '../registers/configurations';
import { rangeKeyOf } from '../results/figures';
import { groupedBy } from '../results/grouped';
import { HISTORY_ORDER, KEPT_RUN_SQL } from '../results/history';
import { visitsOf, type KeptRun, type Visit } from '../results/visits';
import { adviseOn, type Advised } from './advise';
import { countFamilies, loadFamilies, type Families, type FamilyKey } from './families';

/** Instruments a transaction. */
const BATCH = 500;
/** Without a beat for so long a calculation was cut off: its server has gone. */
export const CUT_OFF_S = 60;

export type CalculationState = 'runs' | 'done' | 'cancelled' | 'failed' | 'cut off';

export interface NamedDifference extends Difference {
  readonly of: 'reference' | 'person';
}

export interface Calculation {
  readonly id: number;
  readonly askedBy: string;
  readonly askedAt: Date;
  readonly state: CalculationState;
  readonly done: number;
  readonly total: number;
  readonly endedAt: Date | null;
  readonly differences: readonly NamedDifference[];
}

const CALCULATION_SQL = `
  select id, name_at(asked_by, asked_at) as "askedBy", asked_at as "askedAt", done, total, ended_at as "endedAt",
    differences, case when state = 'runs' and beat_at < now() - interval '${CUT_OFF_S} seconds' then 'cut off'
      else state end as state
  from interval_calculation`;

/** The newest calculation, or null before the first. */
export async function lastCalculation(db: Queryable): Promise<Calculation | null> {
  const [row] = await db.query<Calculation>(`${CALCULATION_SQL} order by id desc limit 1`);
  return row ?? null;
}

/** The newest one that came to its end, whose advice stands. */
export async function lastFinished(db: Queryable): Promise<Calculation | null> {
  const [row] = await db.query<Calculation>(
    `${CALCULATION_SQL} where state = 'done' order by id desc limit 1`,
  );
  return row ?? null;
}

/**
 * Asks for a calculation; whoever asked has it worked through (`calculate`).
 * @throws StoreError `calculates-already`, `unknown-person`, `not-allowed`
 */
export async function askCalculation(tx: Queryable, actor: Actor): Promise<number> {
  await requireScheduler(tx, actor);
  await tx.query("select pg_advisory_xact_lock(hashtext('interval calculation'))");
  const last = await lastCalculation(tx);
  if (last?.state === 'runs') throw new StoreError({ code: 'calculates-already', by: last.askedBy });
  await tx.query(`update interval_calculation set state = 'failed', ended_at = now() where state = 'runs'`);
  const [row] = await tx.query<{ id: number }>(
    `insert into interval_calculation (asked_by, asked_at, beat_at, total)
     values ($1, $2, now(), (select count(*) from instrument where state = 'in service')) returning id`,
    [actor.personId, actor.at],
  );
  const id = row?.id ?? 0;
  await appendToTrail(tx, actor, {
    act: 'ask for intervals',
    subject: { kind: 'site', id: 1 },
    detail: { calculation: id },
  });
  return id;
}

/**
 * Stops a calculation that runs; what it advised so far stands.
 * @returns whether there was one
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function stopCalculation(tx: Queryable, actor: Actor, id: number): Promise<boolean> {
  await requireScheduler(tx, actor);
  const stopped = await tx.query(
    `update interval_calculation set state = 'cancelled', ended_at = now() where id = $1 and state = 'runs' returning id`,
    [id],
  );
  return stopped.length > 0;
}

interface ToAdvise extends FamilyKey {
  readonly id: number;
  readonly configuration: Configuration;
  readonly months: number;
  readonly cap: number;
  readonly target: number;
}

const TO_ADVISE_SQL = `
  select instrument.id, body.model, measures, area, interval_months as months, longest_months as cap, target,
    ${CONFIGURATION_JSON} as configuration
  from instrument join body on body.id = body_id join interval_policy using (criticality)
    join lateral (
      select * from configuration where instrument_id = instrument.id order by version desc limit 1
    ) configuration on true`;

const circumstances = (one: ToAdvise, families: Families) => ({
  ...one,
  family: families.of(one),
  rangeKey: rangeKeyOf(one.configuration),
});

export async function visitsOfMany(
  db: Queryable,
  instrumentIds: readonly number[],
): Promise<ReadonlyMap<number, Visit[]>> {
  const runs = await db.query<KeptRun>(
    `${KEPT_RUN_SQL} where instrument_id = any($1) order by ${HISTORY_ORDER}`,
    [instrumentIds],
  );
  return new Map(
    [...groupedBy(runs, ({ instrumentId }) => instrumentId)].map(([id, own]) => [id, visitsOf(own)]),
  );
}

/** The advice on one instrument as it stands this moment. */
export async function adviseNow(
  db: Queryable,
  instrumentId: number,
  visits: readonly Visit[],
  families: Families,
): Promise<Advised> {
  const [one] = await db.query<ToAdvise>(`${TO_ADVISE_SQL} where instrument.id = $1`, [instrumentId]);
  if (one === undefined) throw new StoreError({ code: 'no-such', what: 'instrument', name: instrumentId });
  return adviseOn(visits, circumstances(one, families));
}

/** The mean error of a run as a part of its limits; null where nothing was read or a limit is zero. */
function meanOfLimit({ error, limit }: KeptRun): number | null {
  if (error.length === 0 || limit.some((one) => one <= 0)) return null;
  return error.reduce((sum, one, index) => sum + one / (limit[index] as number), 0) / error.length;
}

/** Counts the steps over which a reference or a person changed. */
class Counted {
  private readonly references = new Changes();
  private readonly people = new Changes();

  add(visits: readonly Visit[]): void {
    for (const [index, { found, rangeKey }] of visits.entries()) {
      const before = visits[index - 1];
      if (before?.rangeKey !== rangeKey) continue;
      const left = before.left ?? before.found;
      if (found === null || left === null) continue;
      const [now, then] = [meanOfLimit(found), meanOfLimit(left)];
      if (now === null || then === null) continue;
      this.references.add(left.standard, found.standard, now - then);
      if (left.personId !== null && found.personId !== null)
        this.people.add(String(left.personId), String(found.personId), now - then);
    }
  }

  /** People are named as they are called today. */
  async different(db: Queryable): Promise<NamedDifference[]> {
    const people = new Map(
      (await db.query<{ id: number; name: string }>('select id, name from person')).map(({ id, name }) => [
        String(id),
        name,
      ]),
    );
    const named = (one: Difference): Difference => ({
      ...one,
      name: people.get(one.name) ?? one.name,
      others: one.others.map((other) => people.get(other) ?? other),
    });
    return [
      ...this.references.different().map((one) => ({ ...one, of: 'reference' as const })),
      ...this.people.different().map((one) => ({ ...named(one), of: 'person' as const })),
    ];
  }
}

interface KeptAdvice {
  readonly instrumentId: number;
  readonly kind: string;
  readonly monthsNow: number;
  readonly months: number;
  readonly insideUntil: string | null;
  readonly outsidePart: number | null;
  readonly advice: Omit<Advised, 'anomalies'>;
  readonly anomalies: Advised['anomalies'];
}

const keptAdvice = (id: number, { anomalies, ...advised }: Advised): KeptAdvice => ({
  instrumentId: id,
  kind: advised.advice.kind,
  monthsNow: advised.advice.now.months,
  months: advised.advice.months,
  insideUntil: advised.insideUntil,
  outsidePart: advised.advice.now.outsidePart,
  advice: advised,
  anomalies,
});

const keepAdvice = (tx: Queryable, calculation: number, day: string, rows: readonly KeptAdvice[]) =>
  tx.query(
    `insert into interval_advice (instrument_id, calculation_id, computed_on, kind, months_now, months, inside_until,
       outside_part, advice, anomalies)
     select "instrumentId", $2, $3, kind, "monthsNow", months, "insideUntil", "outsidePart", advice, anomalies
     from jsonb_to_recordset($1::jsonb) as entry ("instrumentId" bigint, kind text, "monthsNow" integer, months integer,
       "insideUntil" date, "outsidePart" double precision, advice jsonb, anomalies jsonb)
     on conflict (instrument_id) do update set (calculation_id, computed_on, kind, months_now, months, inside_until,
       outside_part, advice, anomalies) = (excluded.calculation_id, excluded.computed_on, excluded.kind,
       excluded.months_now, excluded.months, excluded.inside_until, excluded.outside_part, excluded.advice,
       excluded.anomalies)`,
    [JSON.stringify(rows), calculation, day],
  );

/** Locks the calculation while a batch is kept; false where it was stopped meanwhile. */
async function stillRuns(tx: Queryable, id: number): Promise<boolean> {
  const [row] = await tx.query<{ state: string }>(
    'select state from interval_calculation where id = $1 for no key update',
    [id],
  );
  return row?.state === 'runs';
}

async function adviseBatch(
  db: Queryable,
  batch: readonly ToAdvise[],
  families: Families,
  counted: Counted,
): Promise<KeptAdvice[]> {
  const visits = await visitsOfMany(
    db,
    batch.map(({ id }) => id),
  );
  return batch.map((one) => {
    const own = visits.get(one.id) ?? [];
    counted.add(own);
    return keptAdvice(one.id, adviseOn(own, circumstances(one, families)));
  });
}

/** Ends a calculation that runs no more, unless it was ended otherwise. */
const end = (
  db: Queryable,
  id: number,
  state: 'done' | 'failed',
  differences: readonly NamedDifference[] = [],
) =>
  db.query(
    `update interval_calculation set state = $2, ended_at = now(), differences = $3 where id = $1 and state = 'runs'`,
    [id, state, JSON.stringify(differences)],
  );

/**
 * Works a calculation through, to its end or until it is stopped.
 * @param day of the site, ISO date
 */
export async function calculate(db: Database, id: number, day: string): Promise<void> {
  try {
    await db.transaction(countFamilies);
    const families = await loadFamilies(db);
    const counted = new Counted();
    for (let after = 0, done = 0; ;) {
      const batch = await db.query<ToAdvise>(
        `${TO_ADVISE_SQL} where instrument.id > $1 and state = 'in service' order by instrument.id limit ${BATCH}`,
        [after],
      );
      const last = batch.at(-1);
      if (last === undefined) break;
      const rows = await adviseBatch(db, batch, families, counted);
      after = last.id;
      done += batch.length;
      const goesOn = await db.transaction(async (tx) => {
        if (!(await stillRuns(tx, id))) return false;
        await keepAdvice(tx, id, day, rows);
        await tx.query(
          'update interval_calculation set done = $2, total = greatest(total, $2), beat_at = now() where id = $1',
          [id, done],
        );
        return true;
      });
      if (!goesOn) return;
    }
    // What is not in service any more is advised nothing.
    await db.query('delete from interval_advice where calculation_id < $1', [id]);
    await end(db, id, 'done', await counted.different(db));
  } catch (error) {
    await end(db, id, 'failed').catch(() => undefined);
    throw error;
  }
}
