/** A reference found out of tolerance: which runs are in doubt, what they say with its error, and what was decided. */
import { atInstrument } from '@barys/core/corrections';
import { checkReferenceErrors, withoutReferenceError, type Verdict } from '@barys/core/run';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { refuseTaken, StoreError } from '../db/errors';
import { evaluateReadings, evaluateStoredRun, readingsOf, standardAt } from '../runs/evaluation';
import { requireKeeper } from '../people/people';
import type { Actor } from '../people/actor';
import { betweenUnits } from '../runs/accuracy';
import type { Reference } from './reference';
import { findReference } from './references';
import { runsById } from '../runs/load';
import type { Run } from '../runs/copy';

export const findingSchema = z
  .object({
    foundOn: z.iso.date('The day it was found is a date, such as 2026-03-31.'),
    goodUntil: z.iso.date('The last good calibration is a date, such as 2025-03-31.'),
    errors: z
      .array(z.object({ at: z.number(), error: z.number() }), {
        error: 'Each point is what the reference read, and its error.',
      })
      .min(1, 'Enter at least one point: what the reference read, and its error.')
      .max(100, 'At most 100 points.'),
    note: z.string().trim().min(1, 'Say how it was found.').max(500),
  })
  .refine(({ foundOn, goodUntil }) => goodUntil <= foundOn, {
    path: ['goodUntil'],
    message: 'The last good calibration is not after the day it was found.',
  });
export type NewFinding = z.infer<typeof findingSchema>;

export interface Finding extends Readonly<NewFinding> {
  readonly id: number;
  readonly reference: Reference;
  readonly enteredBy: string;
  readonly enteredAt: Date;
  /** Why the reference may be used again, and who said so; null while it is held. */
  readonly release: { readonly reason: string; readonly by: string; readonly at: string } | null;
}

export const DECISIONS = ['no effect', 'recall', 'note'] as const;
export type Decision = (typeof DECISIONS)[number];

/** @throws StoreError `no-such`, `unknown-person`, `not-allowed`; CoreError where the points do not rise */
export async function addFinding(
  tx: Queryable,
  actor: Actor,
  moduleId: number,
  entry: NewFinding,
): Promise<number> {
  await requireKeeper(tx, actor);
  checkReferenceErrors(entry.errors);
  const reference = await findReference(tx, moduleId);
  const [row] = await tx.query<{ id: number }>(
    `insert into reference_finding (module_id, found_on, good_until, errors, note, entered_by, entered_at)
     values ($1, $2, $3, $4, $5, $6, $7) returning id`,
    [
      moduleId,
      entry.foundOn,
      entry.goodUntil,
      JSON.stringify(entry.errors),
      entry.note,
      actor.personId,
      actor.at,
    ],
  );
  const id = row?.id ?? 0;
  await appendToTrail(tx, actor, {
    act: 'enter finding',
    subject: { kind: 'finding', id },
    detail: { reference: reference.tag, ...entry },
  });
  return id;
}

const FINDING_SQL = `select reference_finding.id, module_id as "moduleId", found_on as "foundOn",
  good_until as "goodUntil", errors, note, name_at(entered_by, entered_at) as "enteredBy", entered_at as "enteredAt",
  (select json_build_object('reason', reason, 'by', name_at(released_by, released_at), 'at', released_at)
   from finding_release where finding_id = reference_finding.id) as release
  from reference_finding`;

type FindingRow = Omit<Finding, 'reference'> & { moduleId: number };

const toFinding = async (db: Queryable, { moduleId, ...row }: FindingRow): Promise<Finding> => ({
  ...row,
  reference: await findReference(db, moduleId),
});

/** @throws StoreError `no-such` */
export async function findFinding(db: Queryable, id: number): Promise<Finding> {
  const [row] = await db.query<FindingRow>(`${FINDING_SQL} where reference_finding.id = $1`, [id]);
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'finding', name: id });
  return toFinding(db, row);
}

/** What was found of a reference, the newest first. */
export async function findingsOf(db: Queryable, tag: string): Promise<Finding[]> {
  const rows = await db.query<FindingRow>(
    `${FINDING_SQL} join reference_module on reference_module.id = module_id
       join reference_standard on reference_standard.id = reference_id
     where tag = $1 order by reference_finding.id desc`,
    [tag],
  );
  const findings: Finding[] = [];
  for (const row of rows) findings.push(await toFinding(db, row));
  return findings;
}

export interface DoubtfulRun {
  readonly runId: number;
  readonly jobId: number;
  readonly tag: string;
  readonly service: string;
  readonly kind: Run['kind'];
  readonly startedAt: Date;
  readonly verdictThen: Verdict | null;
  readonly verdictNow: Verdict | null;
  /** Largest errors, per cent of span, signed. */
  readonly worstThen: number | null;
  readonly worstNow: number | null;
  readonly decision: Decision | null;
  readonly remark: string;
  readonly decidedBy: string | null;
}

/** A standard's copy without its corrections: an error found stands for them, since it is that of the reading. */
const uncorrected = <R extends Run['madeWith']['meter']>(copy: R, { tag, name }: Finding['reference']): R =>
  copy === null || copy.tag !== tag || copy.name !== name
    ? copy
    : { ...copy, results: copy.results.map((result) => ({ ...result, correction: 0 })) };

/** The readings of a run as they would have been with a reference that read right. */
function rejudged(asKept: Run, side: 'applied' | 'output', { reference, errors }: Finding) {
  const { pressureReference, secondReference, meter } = asKept.madeWith;
  const run = {
    ...asKept,
    madeWith: {
      ...asKept.madeWith,
      ...(side === 'output'
        ? { meter: uncorrected(meter, reference) }
        : {
            pressureReference: uncorrected(pressureReference, reference),
            secondReference: uncorrected(secondReference, reference),
          }),
    },
  };
  const { inputUnit, outputUnit } = run.madeWith.configuration;
  const unit = side === 'applied' ? inputUnit : outputUnit;
  const [toOwn, fromOwn] = betweenUnits(unit, reference);
  const asRead = readingsOf(run);
  // The standard read the head less than the instrument saw.
  const head = side === 'applied' ? run.madeWith.head : 0;
  const seen = (value: number) => toOwn(atInstrument(value, -head));
  const corrected = withoutReferenceError(asRead, errors, side, seen, fromOwn);
  // Of two standards in one run, only the points of this one are in doubt.
  const isItsOwn = (index: number): boolean => {
    const point = run.madeWith.points.find(({ position }) => position === run.readings[index]?.position);
    if (side === 'output' || point === undefined) return true;
    const { tag, name } = standardAt(run.madeWith, point);
    return tag === reference.tag && name === reference.name;
  };
  return evaluateReadings(
    run,
    asRead.map((reading, index) => (isItsOwn(index) ? (corrected[index] ?? reading) : reading)),
  );
}

/**
 * Every run that a finding puts in doubt, with what was decided last; days are those of the site. By the connection of the
 * run, and by its module and not its tag: other ranges of the reference are not in doubt.
 */
const DOUBT_SQL = `
  from reference_finding finding
    join reference_module module on module.id = finding.module_id
    join reference_standard standard on standard.id = module.reference_id
    cross join (select coalesce((select time_zone from installation), 'UTC') as zone) site
    join connection on finding.module_id in (pressure_module_id, second_module_id, meter_module_id)
    join run on run.connection_id = connection.id
      and started_at >= finding.good_until::timestamp at time zone zone
      and started_at < (finding.found_on + 1)::timestamp at time zone zone
    left join lateral (
      select decision, finding_decision.remark, name_at(decided_by, decided_at) as by from finding_decision
      where finding_id = finding.id and run_id = run.id order by finding_decision.id desc limit 1
    ) decided on true`;

/**
 * Runs that used the reference after its last good calibration up to the day of the finding, judged as they were and
 * with the error found, the newest first.
 */
export async function runsInDoubt(db: Queryable, finding: Finding, limit: number): Promise<DoubtfulRun[]> {
  const lines = await db.query<
    Pick<DoubtfulRun, 'runId' | 'jobId' | 'tag' | 'service' | 'decision' | 'remark' | 'decidedBy'> & {
      side: 'applied' | 'output';
    }
  >(
    `select run.id as "runId", run.job_id as "jobId", job.instrument_copy ->> 'tag' as tag,
       job.instrument_copy ->> 'service' as service, decision,
       case when meter_module_id = finding.module_id then 'output' else 'applied' end as side,
       coalesce(decided.remark, '') as remark, decided.by as "decidedBy"
     ${DOUBT_SQL} join job on job.id = run.job_id
     where finding.id = $1 order by started_at desc, run.id desc limit $2`,
    [finding.id, limit],
  );
  const runs = await runsById(
    db,
    lines.map(({ runId }) => runId),
  );
  return lines.flatMap(({ side, ...line }) => {
    const run = runs.get(line.runId);
    if (run === undefined) return [];
    const [then, now] = [evaluateStoredRun(run), rejudged(run, side, finding)];
    return [
      {
        ...line,
        kind: run.kind,
        startedAt: run.startedAt,
        verdictThen: then.verdict,
        verdictNow: now.verdict,
        worstThen: then.worst?.errorPercentSpan ?? null,
        worstNow: now.worst?.errorPercentSpan ?? null,
      },
    ];
  });
}

/** What is known since of the standards that a job used. */
export interface JobDoubt {
  readonly findingId: number;
  readonly runId: number;
  readonly reference: string;
  readonly foundOn: string;
  readonly decision: Decision | null;
  readonly remark: string;
  readonly decidedBy: string | null;
}

/** Findings at references that put runs of a job in doubt, the oldest first. */
export const doubtsOfJob = (db: Queryable, jobId: number): Promise<JobDoubt[]> =>
  db.query<JobDoubt>(
    `select finding.id as "findingId", run.id as "runId", standard.tag as reference, found_on as "foundOn", decision,
       coalesce(decided.remark, '') as remark, decided.by as "decidedBy"
     ${DOUBT_SQL} where run.job_id = $1 order by finding.id, run.id`,
    [jobId],
  );

export interface OpenFinding {
  readonly id: number;
  readonly reference: string;
  readonly foundOn: string;
  /** Runs that nobody has decided on. */
  readonly undecided: number;
  readonly isHeld: boolean;
}

/** Findings that wait for somebody: runs to decide on, or a reference that is held. */
export const openFindings = (db: Queryable, limit: number): Promise<OpenFinding[]> =>
  db.query<OpenFinding>(
    `with doubt as (
       select finding.id, count(*)::int as undecided ${DOUBT_SQL} where decision is null group by finding.id
     )
     select finding.id, standard.tag as reference, found_on as "foundOn", coalesce(undecided, 0) as undecided,
       released.id is null as "isHeld"
     from reference_finding finding
       join reference_module module on module.id = finding.module_id
       join reference_standard standard on standard.id = module.reference_id
       left join doubt on doubt.id = finding.id
       left join finding_release released on released.finding_id = finding.id
     where undecided > 0 or released.id is null order by finding.id limit $1`,
    [limit],
  );

/**
 * Lets a reference that was found wrong be used again.
 * @throws StoreError `reason-needed`, `no-such`, `unknown-person`, `not-allowed`
 */
export async function releaseReference(
  tx: Queryable,
  actor: Actor,
  findingId: number,
  reason: string,
): Promise<void> {
  await requireKeeper(tx, actor);
  const finding = await findFinding(tx, findingId);
  if (reason.trim() === '')
    throw new StoreError({ code: 'reason-needed', why: 'what was done to it, or why it is good enough' });
  await refuseTaken({ what: 'release of', name: finding.reference.tag }, () =>
    tx.query(
      'insert into finding_release (finding_id, reason, released_by, released_at) values ($1, $2, $3, $4)',
      [findingId, reason.trim(), actor.personId, actor.at],
    ),
  );
  await appendToTrail(tx, actor, {
    act: 'release reference',
    subject: { kind: 'finding', id: findingId },
    detail: { reference: finding.reference.tag, reason: reason.trim() },
  });
}

/**
 * Decides what a finding means for several runs at once.
 * @throws StoreError as `decideFinding`
 */
export async function decideFindingFor(
  tx: Queryable,
  actor: Actor,
  findingId: number,
  entry: { readonly runIds: readonly number[]; readonly decision: Decision; readonly remark: string },
): Promise<void> {
  const { runIds, ...rest } = entry;
  if (runIds.length === 0)
    throw new StoreError({ code: 'reason-needed', why: 'which runs are meant; tick them first' });
  for (const runId of [...runIds].sort((a, b) => a - b))
    await decideFinding(tx, actor, findingId, { runId, ...rest });
}

/**
 * Decides what a finding means for one run. A recall makes its instrument due at once.
 * @throws StoreError `no-such`, `reason-needed`, `unknown-person`, `not-allowed`
 */
export async function decideFinding(
  tx: Queryable,
  actor: Actor,
  findingId: number,
  {
    runId,
    decision,
    remark,
  }: { readonly runId: number; readonly decision: Decision; readonly remark: string },
): Promise<void> {
  await requireKeeper(tx, actor);
  await findFinding(tx, findingId);
  if (decision === 'note' && remark.trim() === '')
    throw new StoreError({ code: 'reason-needed', why: 'a note has to say something' });
  const [run] = await tx.query<{ instrumentId: number; dueOn: string }>(
    `select instrument_id as "instrumentId", due_on as "dueOn" from run join job on job.id = job_id
     join instrument on instrument.id = instrument_id where run.id = $1`,
    [runId],
  );
  if (run === undefined) throw new StoreError({ code: 'no-such', what: 'run', name: runId });
  await tx.query(
    `insert into finding_decision (finding_id, run_id, decision, remark, decided_by, decided_at)
     values ($1, $2, $3, $4, $5, $6)`,
    [findingId, runId, decision, remark.trim(), actor.personId, actor.at],
  );
  if (decision === 'recall' && run.dueOn > actor.today)
    await tx.query('update instrument set due_on = $2, revision = revision + 1 where id = $1', [
      run.instrumentId,
      actor.today,
    ]);
  await appendToTrail(tx, actor, {
    act: 'decide finding',
    subject: { kind: 'finding', id: findingId },
    detail: {
      run: runId,
      instrument: run.instrumentId,
      decision,
      remark: remark.trim(),
      dueBefore: run.dueOn,
    },
  });
}
