/** Automatic runs: started and told by people, gone through by a link, kept as readings like those that are typed. */
import { ORDERS, PHASES, type Order } from '@barys/core/automatic';
import { CHANNELS, type Channel, type Task } from '@barys/core/port';
import { decimalsForResolution } from '@barys/core/text';
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import type { Actor } from '../people/actor';
import { requireWorker } from '../people/people';
import { findSite } from '../people/site';
import { tapsOfRun } from '../runs/beside';
import { openPoints } from '../runs/evaluation';
import { TAP_COLUMNS, type MadeWith } from '../runs/copy';
import { runsById } from '../runs/load';
import { saveReading } from '../runs/reading';
import type { Bench } from './benches';
import { thereAt, whyStrange } from './there';
import { decimalsOf, planOf, whyNotAutomatic } from './plan';

const device = z.string().min(1).max(60);
export const automaticSchema = z.object({
  bench: z.number().int().positive(),
  reference: device,
  output: device,
  digital: device.nullable(),
  /** What reads each tap of a loop. */
  taps: z.partialRecord(z.enum(TAP_COLUMNS), z.object({ device, channel: z.enum(CHANNELS) })).default({}),
  /** Whether a person works the pressure. */
  isByHand: z.boolean().default(false),
});
export type Automatic = z.input<typeof automaticSchema>;

export interface AutomaticRun {
  readonly id: number;
  readonly runId: number;
  readonly bench: Bench;
  readonly reference: string;
  readonly output: string;
  readonly digital: string | null;
  readonly taps: z.output<typeof automaticSchema>['taps'];
  readonly isByHand: boolean;
  readonly startedBy: string;
  readonly startedById: number;
  readonly startedAt: Date;
}

const AUTOMATIC_SQL = `
  select automatic_run.id, run_id as "runId", json_build_object('id', token_id, 'name', api_token.name) as bench,
    reference_device as reference, output_device as output, digital_device as digital, taps, by_hand as "isByHand",
    name_at(started_by, started_at) as "startedBy", started_by as "startedById", started_at as "startedAt"
  from automatic_run join api_token on api_token.id = token_id`;

/** The automatic run that a run is in; null where it is in none. */
export async function automaticOf(db: Queryable, runId: number): Promise<AutomaticRun | null> {
  const [found] = await db.query<AutomaticRun>(`${AUTOMATIC_SQL} where run_id = $1 and ended_at is null`, [
    runId,
  ]);
  return found ?? null;
}

/** The run with its job, which is taken for this transaction. */
async function lockRun(
  tx: Queryable,
  runId: number,
): Promise<{ readonly jobId: number; readonly counts: boolean }> {
  const [row] = await tx.query<{ jobId: number; counts: boolean }>(
    `select job.id as "jobId", job.stage = run.kind and not exists (select from run_thrown_away where run_id = run.id)
       and not exists (select from run newer where newer.job_id = run.job_id and newer.kind = run.kind
         and newer.pass > run.pass) as counts
     from run join job on job.id = run.job_id where run.id = $1 for update of job`,
    [runId],
  );
  if (row === undefined) throw new StoreError({ code: 'no-such', what: 'run', name: runId });
  return row;
}

/**
 * Lets a run go by itself at a bench.
 * @throws StoreError `no-such`, `not-automatic`, `bench-busy`, `wrong-stage`, `unknown-person`, `not-allowed`
 */
export async function startAutomatic(
  tx: Queryable,
  actor: Actor,
  runId: number,
  { bench, reference, output, digital, taps = {}, isByHand = false }: Automatic,
): Promise<void> {
  await requireWorker(tx, actor);
  const { jobId, counts } = await lockRun(tx, runId);
  if (!counts) throw new StoreError({ code: 'run-superseded' });
  const run = (await runsById(tx, [runId])).get(runId);
  const why =
    run === undefined ? 'It is not there.' : (whyNotAutomatic(run.madeWith) ?? untapped(run.madeWith, taps));
  if (why !== null) throw new StoreError({ code: 'not-automatic', why });
  const [there] = await tx.query<{ name: string }>(
    `select name from api_token where id = $1 and scope = 'link' and revoked_at is null and expires_at > $2 for share`,
    [bench, actor.at],
  );
  if (there === undefined) throw new StoreError({ code: 'no-such', what: 'bench', name: bench });
  const [busy] = await tx.query<{ runId: number }>(
    'select run_id as "runId" from automatic_run where ended_at is null and (token_id = $1 or run_id = $2)',
    [bench, runId],
  );
  if (busy !== undefined) throw new StoreError({ code: 'bench-busy', bench: there.name });
  await refuseStrange(tx, actor.at, bench, run?.madeWith, { reference, output, digital, taps });
  const [row] = await tx.query<{ id: number }>(
    `insert into automatic_run (run_id, token_id, reference_device, output_device, digital_device, by_hand, started_by,
       started_at, taps) values ($1, $2, $3, $4, $5, $6, $7, $8, $9) returning id`,
    [runId, bench, reference, output, digital, isByHand, actor.personId, actor.at, JSON.stringify(taps)],
  );
  await appendToTrail(tx, actor, {
    act: 'start automatic run',
    subject: { kind: 'job', id: jobId },
    detail: { run: runId, automatic: row?.id, bench: there.name, reference, output, digital, taps, isByHand },
  });
}

/** Why a run cannot go by itself for want of something that reads a tap; null where each has one. */
const untapped = (madeWith: MadeWith, taps: AutomaticRun['taps']): string | null => {
  const [open] = tapsOfRun(madeWith).filter(({ column }) => taps[column] === undefined);
  return open === undefined ? null : `Nothing is chosen that reads ${open.name}.`;
};

/**
 * The readings of a run come from the references that its job names, and from nothing else: not from what is not heard of,
 * nor from another instrument at the same place. What is simulated reads nothing, but for a demo.
 */
async function refuseStrange(
  tx: Queryable,
  now: Date,
  bench: number,
  madeWith: MadeWith | undefined,
  {
    reference,
    output,
    digital,
    taps,
  }: Pick<Automatic, 'reference' | 'output' | 'digital'> & Pick<AutomaticRun, 'taps'>,
): Promise<void> {
  const isDemo = (await findSite(tx))?.isDemo === true;
  const there = await thereAt(tx, bench, now);
  const refuse = (device: string, channel: Channel, tag: string | null) => {
    const found = there.find((one) => one.device === device && one.channel === channel);
    const why = found === undefined ? `Nothing is heard of ${device}.` : whyStrange(found, tag, isDemo);
    if (why !== null) throw new StoreError({ code: 'not-automatic', why });
  };
  refuse(reference, 'pressure', madeWith?.pressureReference.tag ?? null);
  refuse(output, 'current', madeWith?.meter?.tag ?? null);
  if (digital !== null) refuse(digital, 'digital value', null);
  for (const { device: name, channel } of Object.values(taps)) refuse(name, channel, null);
}

/**
 * Tells an automatic run something.
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function orderAutomatic(
  tx: Queryable,
  actor: Actor,
  runId: number,
  order: Order,
): Promise<void> {
  await requireWorker(tx, actor);
  const { jobId } = await lockRun(tx, runId);
  const automatic = await automaticOf(tx, runId);
  if (automatic === null)
    throw new StoreError({ code: 'no-such', what: 'automatic run of run', name: runId });
  await tx.query(
    'insert into automatic_order (automatic_id, name, given_by, given_at) values ($1, $2, $3, $4)',
    [automatic.id, z.enum(ORDERS).parse(order), actor.personId, actor.at],
  );
  await appendToTrail(tx, actor, {
    act: 'order automatic run',
    subject: { kind: 'job', id: jobId },
    detail: { run: runId, automatic: automatic.id, order },
  });
}

/**
 * Takes a run back into somebody's hands; one that has ended meanwhile is left alone.
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function endAutomatic(tx: Queryable, actor: Actor, runId: number): Promise<void> {
  await requireWorker(tx, actor);
  const { jobId } = await lockRun(tx, runId);
  const automatic = await automaticOf(tx, runId);
  if (automatic === null) return;
  await end(tx, automatic.id, actor, 'taken over by hand');
  await appendToTrail(tx, actor, {
    act: 'end automatic run',
    subject: { kind: 'job', id: jobId },
    detail: { run: runId, automatic: automatic.id },
  });
}

const end = (tx: Queryable, id: number, { personId, at }: Pick<Actor, 'personId' | 'at'>, why: string) =>
  tx.query(
    'update automatic_run set ended_at = $2, ended_by = $3, ended_why = $4 where id = $1 and ended_at is null',
    [id, at, personId, why],
  );

/** What a link reads at a point. */
export const takenSchema = z.object({
  automatic: z.number().int().positive(),
  position: z.number().int().positive(),
  clientKey: z.uuid(),
  appliedText: z.string().max(40),
  outputText: z.string().max(40),
  digitalText: z.string().max(40).nullable(),
  taps: z
    .array(z.object({ key: z.enum(TAP_COLUMNS), text: z.string().max(40), raw: z.string().max(400) }))
    .max(TAP_COLUMNS.length)
    .default([]),
  /** What came over the wire, as it came. */
  raw: z.object({ applied: z.string().max(400), output: z.string().max(400), digital: z.string().max(400) }),
  takenAt: z.coerce.date(),
  /** Whether a point that has a reading was asked for once more. */
  isRepeat: z.boolean(),
});
export type TakenReading = z.infer<typeof takenSchema>;

/**
 * Keeps a reading of a link in the name of who started the run. What is there already is left, unless it was to be repeated:
 * a link that was killed before it heard the answer doubles nothing.
 * @throws StoreError as `saveReading`
 */
export async function keepTaken(
  tx: Queryable,
  bench: Bench,
  taken: TakenReading,
  now: Pick<Actor, 'at' | 'today'>,
): Promise<void> {
  const [asked] = await tx.query<{ runId: number }>(
    'select run_id as "runId" from automatic_run where id = $1 and token_id = $2',
    [taken.automatic, bench.id],
  );
  if (asked === undefined) return;
  await lockRun(tx, asked.runId);
  const automatic = await automaticOf(tx, asked.runId);
  // It was taken over while the reading was on its way: a reading of nobody's run is none.
  if (automatic?.id !== taken.automatic) return;
  const [standing] = await tx.query<{ id: number; clientKey: string }>(
    `select id, client_key as "clientKey" from reading where run_id = $1 and position = $2
       and not exists (select from reading later where later.supersedes = reading.id)`,
    [automatic.runId, taken.position],
  );
  if (standing !== undefined && (standing.clientKey === taken.clientKey || !taken.isRepeat)) return;
  await saveReading(tx, { personId: automatic.startedById, ...now, via: 'program' }, automatic.runId, {
    position: taken.position,
    clientKey: taken.clientKey,
    appliedText: taken.appliedText,
    appliedAs: 'read',
    outputText: taken.outputText,
    more: {
      ...(taken.digitalText === null ? {} : { digital: taken.digitalText }),
      ...Object.fromEntries(taken.taps.map(({ key, text }) => [key, text])),
    },
    takenAt: taken.takenAt,
    supersedes: standing?.id ?? null,
    source: {
      link: bench.name,
      reference: automatic.reference,
      output: automatic.output,
      digital: automatic.digital,
      raw: {
        ...taken.raw,
        ...(taken.taps.length === 0
          ? {}
          : { taps: Object.fromEntries(taken.taps.map(({ key, raw }) => [key, raw])) }),
      },
    },
  });
}

export const stateSchema = z.object({
  automatic: z.number().int().positive(),
  doneOrder: z.number().int().nonnegative(),
  state: z.object({
    phase: z.enum(PHASES),
    position: z.number().int().nullable(),
    words: z.string().max(400),
    leftS: z.number().nullable(),
  }),
});
export type StateOfLink = z.infer<typeof stateSchema>;

/** Where an automatic run stands, as its link says; one that is finished is ended. */
export async function keepState(
  tx: Queryable,
  bench: Bench,
  { automatic, doneOrder, state }: StateOfLink,
  at: Date,
): Promise<void> {
  const [own] = await tx.query<{ startedBy: number }>(
    'select started_by as "startedBy" from automatic_run where id = $1 and token_id = $2 and ended_at is null',
    [automatic, bench.id],
  );
  if (own === undefined) return;
  await tx.query(
    `insert into automatic_state (automatic_id, state, done_order, at) values ($1, $2, $3, $4)
     on conflict (automatic_id) do update set state = $2, done_order = $3, at = $4`,
    [automatic, JSON.stringify(state), doneOrder, at],
  );
  if (state.phase === 'finished')
    await end(tx, automatic, { personId: own.startedBy, at }, 'all points are read');
}

/** The run that a bench is in; null where it is in none, or its run does not count any more. */
export async function assignmentOf(tx: Queryable, bench: Bench, at: Date): Promise<Task | null> {
  const [automatic] = await tx.query<AutomaticRun & { counts: boolean; tag: string }>(
    `select automatic.*, tag, job.stage = run.kind and not exists (select from run_thrown_away where run_id = run.id) as counts
     from (${AUTOMATIC_SQL} where token_id = $1 and ended_at is null) automatic
       join run on run.id = "runId" join job on job.id = run.job_id
       join instrument on instrument.id = job.instrument_id`,
    [bench.id],
  );
  if (automatic === undefined) return null;
  if (!automatic.counts) {
    await end(tx, automatic.id, { personId: automatic.startedById, at }, 'the job went on without it');
    return null;
  }
  const run = (await runsById(tx, [automatic.runId])).get(automatic.runId);
  if (run === undefined) return null;
  const [stands] = await tx.query<{ state: StateOfLink['state']; doneOrder: number }>(
    'select state, done_order as "doneOrder" from automatic_state where automatic_id = $1',
    [automatic.id],
  );
  const doneOrder = stands?.doneOrder ?? 0;
  const orders = await tx.query<{ id: number; name: Order }>(
    'select id, name from automatic_order where automatic_id = $1 and id > $2 order by id',
    [automatic.id, doneOrder],
  );
  return {
    automatic: automatic.id,
    plan: planOf(run.madeWith, automatic.isByHand),
    decimals: decimalsOf(run.madeWith),
    open: openPoints(run).map(({ position }) => position),
    lastTaken:
      run.readings.filter(({ source }) => source !== null).sort((a, b) => b.id - a.id)[0]?.position ?? null,
    devices: { reference: automatic.reference, output: automatic.output, digital: automatic.digital },
    taps: tapsOfRun(run.madeWith).flatMap(({ column, unit, low, high }) => {
      const reader = automatic.taps[column];
      // As finely as a hundred-thousandth of its scale: no meter of a loop tells more.
      return reader === undefined
        ? []
        : [
            {
              key: column,
              ...reader,
              unit,
              low,
              high,
              decimals: decimalsForResolution(Math.abs(high - low) / 1e5),
            },
          ];
    }),
    orders,
    wasHeld: stands?.state.phase === 'held' ? stands.state.words : null,
    doneOrder,
    configuration: { ...run.madeWith.configuration, tag: automatic.tag },
  };
}

/** Where the automatic run of a run stands; null where it is in none. */
export async function standingOf(
  db: Queryable,
  runId: number,
): Promise<
  (AutomaticRun & { readonly state: StateOfLink['state'] | null; readonly at: Date | null }) | null
> {
  const automatic = await automaticOf(db, runId);
  if (automatic === null) return null;
  const [stands] = await db.query<{ state: StateOfLink['state']; at: Date }>(
    'select state, at from automatic_state where automatic_id = $1',
    [automatic.id],
  );
  return { ...automatic, state: stands?.state ?? null, at: stands?.at ?? null };
}
