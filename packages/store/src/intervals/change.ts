/** A planner changes an interval, on advice or against it, with a reason. */
import dayjs from 'dayjs';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireScheduler } from '../people/people';
import type { Criticality } from '../registers/instrument';
import { checkInterval } from './policy';

export const intervalChangeSchema = z.object({
  /** The interval that whoever decided has seen. */
  beforeMonths: z.number().int(),
  months: z
    .number({ error: 'The interval is a whole number of months.' })
    .int('The interval is a whole number of months.')
    .min(1, 'The interval is from 1 to 120 months.')
    .max(120, 'The interval is from 1 to 120 months.'),
  reason: z.string().trim().max(500, 'At most 500 characters, please.'),
});

export interface IntervalChange {
  readonly beforeMonths: number;
  readonly afterMonths: number;
  readonly reason: string;
  readonly by: string;
  readonly at: Date;
}

/** The changes of an instrument's interval, the newest first. */
export const intervalChangesOf = (db: Queryable, instrumentId: number): Promise<IntervalChange[]> =>
  db.query<IntervalChange>(
    `select before_months as "beforeMonths", after_months as "afterMonths", reason,
       name_at(changed_by, changed_at) as by, changed_at as at
     from interval_change where instrument_id = $1 order by id desc`,
    [instrumentId],
  );

/** The day that a new interval counts from: when the instrument was last left inside its limits; null where it never was. */
async function leftInsideOn(tx: Queryable, instrumentId: number): Promise<string | null> {
  const [last] = await tx.query<{ day: string; verdict: string | null }>(
    `select done_on as day, verdict from result where instrument_id = $1 and is_left
     order by done_on desc, job_id desc nulls last, id desc limit 1`,
    [instrumentId],
  );
  return last === undefined || last.verdict === 'outside' ? null : last.day;
}

/**
 * Changes the interval of an instrument, and its due date with it: counted from the day on which it was last left inside.
 * @throws StoreError `reason-needed`, `changed-meanwhile`, `over-cap`, `not-entrusted`, `no-such`, `unknown-person`, `not-allowed`
 */
export async function changeIntervalOf(
  tx: Queryable,
  actor: Actor,
  instrumentId: number,
  { beforeMonths, months, reason }: z.infer<typeof intervalChangeSchema>,
): Promise<void> {
  await requireScheduler(tx, actor);
  const [instrument] = await tx.query<{
    tag: string;
    criticality: Criticality;
    intervalMonths: number;
    dueOn: string;
  }>(
    `select tag, criticality, interval_months as "intervalMonths", due_on as "dueOn" from instrument
     where id = $1 for no key update`,
    [instrumentId],
  );
  if (instrument === undefined)
    throw new StoreError({ code: 'no-such', what: 'instrument', name: instrumentId });
  if (instrument.intervalMonths !== beforeMonths)
    throw new StoreError({ code: 'changed-meanwhile', what: `the interval of ${instrument.tag}` });
  if (reason === '')
    throw new StoreError({ code: 'reason-needed', why: 'a change of interval keeps its reason' });
  if (months === beforeMonths)
    throw new StoreError({
      code: 'reason-needed',
      why: `which interval it shall have: it has ${months} months already`,
    });
  await checkInterval(tx, actor, instrument, { ...instrument, intervalMonths: months });
  const leftOn = await leftInsideOn(tx, instrumentId);
  const dueOn = leftOn === null ? instrument.dueOn : dayjs(leftOn).add(months, 'month').format('YYYY-MM-DD');
  await tx.query(
    'update instrument set interval_months = $2, due_on = $3, revision = revision + 1 where id = $1',
    [instrumentId, months, dueOn],
  );
  await tx.query(
    `insert into interval_change (instrument_id, before_months, after_months, reason, advised, changed_by, changed_at)
     values ($1, $2, $3, $4, (select advice from interval_advice where instrument_id = $1), $5, $6)`,
    [instrumentId, beforeMonths, months, reason, actor.personId, actor.at],
  );
  await appendToTrail(tx, actor, {
    act: 'change interval',
    subject: { kind: 'instrument', id: instrumentId },
    detail: {
      before: beforeMonths,
      after: months,
      reason,
      ...(dueOn === instrument.dueOn ? {} : { due: { before: instrument.dueOn, after: dueOn } }),
    },
  });
}
