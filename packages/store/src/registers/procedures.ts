/** Procedures: how a calibration is done, as versions that are never edited, only superseded. */
import { SCHOOLS } from '@barys/core/adjust';
import { CoreError } from '@barys/core/errors';
import { plannedPoints, waitForDamping } from '@barys/core/procedure';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import { STAGES } from '../jobs/stages';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';

const number = (name: string) => z.number({ error: `${name} is a number.` });
const share = (name: string) =>
  number(name).positive(`${name} must be greater than zero.`).max(100, `${name} is at most 100 %.`);
const line = z
  .string()
  .trim()
  .min(1, 'A line must say something.')
  .max(300, 'At most 300 characters, please.');

/** The site's rule where an uncertainty reaches over a limit. */
export const decisionRuleSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('simple') }),
  z.object({
    kind: z.literal('guard-band'),
    r: number('The guard band factor').positive('The guard band factor must be greater than zero.').max(3),
    isUndecidedAllowed: z.boolean(),
  }),
  z.object({ kind: z.literal('method-6') }),
]);

export const procedureContentSchema = z
  .object({
    points: z.object({
      in: z.enum(['percent-of-input', 'percent-of-output', 'absolute']),
      values: z
        .array(number('A test point'))
        .min(1, 'At least one point is needed.')
        .max(11, 'At most 11 points.'),
    }),
    direction: z.enum(['up', 'down', 'up-and-down']),
    cycles: number('The number of cycles')
      .int('The number of cycles is a whole number.')
      .min(1, 'At least one cycle.')
      .max(5, 'At most five cycles.'),
    /** Whether the turning point is approached again on the way back. */
    isTopRepeated: z.boolean(),
    /** How far the end points are moved in, per cent of span, where an output lies on its stop. */
    offStopsPercent: number('The distance from the stops')
      .min(0, 'The distance from the stops must not be negative.')
      .max(20, 'The distance from the stops is at most 20 %.'),
    settle: z.object({
      /** What may be left of a step when it is looked at, per cent; the wait follows from the damping. */
      leftPercent: share('What may be left of the step'),
      holdS: number('The hold time').min(1, 'The hold time is at least a second.').max(3600),
      /** Full width in which a reading counts as standing still, per cent of span. */
      bandPercent: share('The stability band'),
    }),
    /** How a controller comes to a point, and what becomes of the pressure when nobody hears of it; usual where it is not said. */
    approach: z
      .object({
        /** Per cent of span. */
        ratePercentPerS: number('The approach')
          .min(0.1, 'The approach is at least 0.1 % of span a second.')
          .max(50, 'The approach is at most 50 % of span a second.'),
        onLoss: z.enum(['hold', 'vent']),
      })
      .optional(),
    /** Null is the instrument's own. */
    tolerancePercentOfSpan: share('The tolerance').nullable(),
    adjustAbovePercentOfLimit: share('The adjust limit').nullable(),
    /** When an instrument is adjusted; only past the adjust limit where it is not said. */
    school: z.enum(SCHOOLS).optional(),
    decisionRule: decisionRuleSchema,
    leastRatio: number('The least accuracy ratio').min(1, 'The least accuracy ratio is at least 1.').max(20),
    /** Where nothing may be adjusted under this procedure. */
    isAsFoundOnly: z.boolean(),
    questions: z.array(z.object({ stage: z.enum(STAGES), text: line })).max(40),
    cautions: z.array(line).max(20),
  })
  .superRefine((content, context) => {
    try {
      plannedPoints(content, { lrv: 0, urv: 100, outputLow: 0, outputHigh: 100 });
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      const [field = 'points'] = (error.field ?? 'points').split('.');
      context.addIssue({ code: 'custom', path: [field], message: error.message });
    }
  });
export type ProcedureContent = z.infer<typeof procedureContentSchema>;

export const procedureNameSchema = z
  .string()
  .trim()
  .min(1, 'A procedure needs a name.')
  .max(80, 'At most 80 characters, please.');

export interface ProcedureVersion extends ProcedureContent {
  readonly version: number;
  /** Null for those that come with Barys. */
  readonly madeBy: string | null;
  readonly madeAt: Date;
  readonly reason: string;
}

export interface ProcedureLine {
  readonly id: number;
  readonly name: string;
  /** The version in force. */
  readonly version: number;
  readonly content: ProcedureContent;
  readonly instruments: number;
}

/** The version in force as JSON of PostgreSQL, for queries that join `procedure` and its newest `procedure_version`. */
export const PROCEDURE_JSON = `json_build_object('id', procedure.id, 'name', procedure.name,
  'version', procedure_version.in_force, 'content', procedure_version.content)`;

export const PROCEDURE_JOIN = `join procedure on procedure.id = instrument.procedure_id
    join lateral (
      select version as in_force, content from procedure_version
      where procedure_id = procedure.id order by version desc limit 1
    ) procedure_version on true`;

export function listProcedures(db: Queryable): Promise<ProcedureLine[]> {
  return db.query<ProcedureLine>(
    `select procedure.id, name, version, content,
       (select count(*)::int from instrument where procedure_id = procedure.id) as instruments
     from procedure join lateral (
       select version, content from procedure_version where procedure_id = procedure.id order by version desc limit 1
     ) newest on true order by procedure.id`,
  );
}

/**
 * A procedure with its versions, the newest first.
 * @throws StoreError `no-such`
 */
export async function findProcedure(
  db: Queryable,
  id: number,
): Promise<{ readonly id: number; readonly name: string; readonly versions: readonly ProcedureVersion[] }> {
  const [procedure] = await db.query<{ id: number; name: string }>(
    'select id, name from procedure where id = $1',
    [id],
  );
  if (procedure === undefined) throw new StoreError({ code: 'no-such', what: 'procedure', name: id });
  const rows = await db.query<Omit<ProcedureVersion, keyof ProcedureContent> & { content: ProcedureContent }>(
    `select version, content, name_at(made_by, made_at) as "madeBy", made_at as "madeAt", reason
     from procedure_version
     where procedure_id = $1 order by version desc`,
    [id],
  );
  return { ...procedure, versions: rows.map(({ content, ...row }) => ({ ...content, ...row })) };
}

export interface NewProcedure {
  readonly name: string;
  readonly content: ProcedureContent;
  readonly reason: string;
}

/**
 * Enters a procedure, or a new version of one, which is in force at once. Runs already begun keep their copy.
 * @param edited the procedure and the version that was being looked at, or null for a new procedure
 * @throws StoreError `no-such`, `taken`, `changed-meanwhile`, `reason-needed`, `unknown-person`, `not-allowed`
 */
export async function keepProcedure(
  tx: Queryable,
  actor: Actor,
  edited: { readonly id: number; readonly version: number } | null,
  { name, content, reason }: NewProcedure,
): Promise<number> {
  await requireKeeper(tx, actor);
  if (reason.trim() === '')
    throw new StoreError({ code: 'reason-needed', why: 'the reason stays with the version' });
  const [row] = await refuseTaken({ what: 'procedure', name }, () =>
    edited === null
      ? tx.query<{ id: number }>('insert into procedure (name) values ($1) returning id', [name])
      : tx.query<{ id: number }>('update procedure set name = $2 where id = $1 returning id', [
          edited.id,
          name,
        ]),
  );
  if (row === undefined)
    throw new StoreError({ code: 'no-such', what: 'procedure', name: edited?.id ?? name });
  const version = (edited?.version ?? 0) + 1;
  const [newest] = await tx.query<{ version: number }>(
    'select coalesce(max(version), 0)::int as version from procedure_version where procedure_id = $1',
    [row.id],
  );
  if (newest?.version !== version - 1) throw new StoreError({ code: 'changed-meanwhile', what: name });
  await tx.query(
    `insert into procedure_version (procedure_id, version, content, made_by, made_at, reason)
     values ($1, $2, $3, $4, $5, $6)`,
    [row.id, version, JSON.stringify(content), actor.personId, actor.at, reason.trim()],
  );
  await appendToTrail(tx, actor, {
    act: edited === null ? 'add procedure' : 'change procedure',
    subject: { kind: 'procedure', id: row.id },
    detail: { name, version, ...content, reason: reason.trim() },
  });
  return row.id;
}

/** A procedure as an instrument has it: the version in force. */
export interface ProcedureInForce {
  readonly id: number;
  readonly name: string;
  readonly version: number;
  readonly content: ProcedureContent;
}

/** Seconds to wait after a step before the reading is looked at, for an instrument's damping. */
export const settleWaitS = ({ settle }: ProcedureContent, dampingS: number): number =>
  waitForDamping(dampingS, settle.leftPercent);
