/** What the site asks of intervals, by the criticality of an instrument. */
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireAdministrator, requirePerson } from '../people/people';
import type { Criticality } from '../registers/instrument';

export interface IntervalPolicy {
  readonly criticality: Criticality;
  /** Part that is to be found inside at the end of an interval. */
  readonly target: number;
  readonly longestMonths: number;
}

export const intervalPolicySchema = z.object({
  target: z
    .number({ error: 'The target is a number of per cent.' })
    .min(0.5, 'The target is from 50 to 99.99 %.')
    .max(0.9999, 'The target is from 50 to 99.99 %.'),
  longestMonths: z
    .number({ error: 'The longest interval is a whole number of months.' })
    .int('The longest interval is a whole number of months.')
    .min(1, 'The longest interval is from 1 to 120 months.')
    .max(120, 'The longest interval is from 1 to 120 months.'),
});

const POLICY_SQL = `select criticality, target, longest_months as "longestMonths" from interval_policy`;

/** In the order of how much hangs on an instrument. */
export const listPolicies = (db: Queryable): Promise<IntervalPolicy[]> =>
  db.query<IntervalPolicy>(`${POLICY_SQL} order by id`);

export async function policyOf(db: Queryable, criticality: Criticality): Promise<IntervalPolicy> {
  const [policy] = await db.query<IntervalPolicy>(`${POLICY_SQL} where criticality = $1`, [criticality]);
  if (policy === undefined) throw new StoreError({ code: 'no-such', what: 'criticality', name: criticality });
  return policy;
}

/**
 * Sets what the site asks. Intervals in force stay; the advice and every later change follow it.
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function setPolicy(
  tx: Queryable,
  actor: Actor,
  criticality: Criticality,
  entry: z.infer<typeof intervalPolicySchema>,
): Promise<void> {
  await requireAdministrator(tx, actor);
  if (criticality === 'safety function') await requireSafetyAuthority(tx, actor);
  const { criticality: _of, ...before } = await policyOf(tx, criticality);
  await tx.query('update interval_policy set target = $2, longest_months = $3 where criticality = $1', [
    criticality,
    entry.target,
    entry.longestMonths,
  ]);
  await appendToTrail(tx, actor, {
    act: 'set interval policy',
    subject: { kind: 'site', id: 1 },
    detail: { criticality, before, after: entry },
  });
}

/**
 * The acting person, if entrusted with the intervals of safety functions.
 * @throws StoreError `not-entrusted`, `unknown-person`
 */
export async function requireSafetyAuthority(tx: Queryable, actor: Actor): Promise<void> {
  const person = await requirePerson(tx, actor);
  if (!person.decidesSafety) throw new StoreError({ code: 'not-entrusted', person: person.name });
}

/** What of an instrument its interval hangs on. */
export interface Scheduled {
  readonly criticality: Criticality;
  readonly intervalMonths: number;
}

/**
 * Refuses an interval that its criticality does not allow, or that the acting person may not set: of a safety function only those
 * who are entrusted change it, and only they make a safety function of something, or something else of one.
 * @param before null of an instrument that is entered anew
 * @throws StoreError `over-cap`, `not-entrusted`
 */
export async function checkInterval(
  tx: Queryable,
  actor: Actor,
  before: Scheduled | null,
  after: Scheduled,
): Promise<void> {
  const isSame = before?.criticality === after.criticality && before.intervalMonths === after.intervalMonths;
  if (isSame) return;
  const { longestMonths } = await policyOf(tx, after.criticality);
  if (after.intervalMonths > longestMonths)
    throw new StoreError({ code: 'over-cap', criticality: after.criticality, months: longestMonths });
  if (before !== null && [before.criticality, after.criticality].includes('safety function'))
    await requireSafetyAuthority(tx, actor);
}
