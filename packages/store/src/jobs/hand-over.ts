/**
 * What a shift hands over: the jobs that are half done, and which instruments stand isolated, bypassed, in manual or under pressure at
 * this moment, since when and by whom. All of it follows from what was kept: valves as they were moved, questions as they were answered.
 * A job that was signed without its return goes on being named, until a later one brings the instrument back or the register says that
 * it is out of service.
 */
import {
  inService,
  lacksOf,
  moveValve,
  type Arrangement,
  type HookUpLack,
  type HookUpState,
} from '@barys/core/hookup';
import type { Queryable } from '../db/database';
import { groupedBy } from '../results/grouped';
import { BYPASS_QUESTIONS, CONTROLLER_QUESTION, IN_MANUAL, type Answer } from './questions';
import type { JobReason, Stage, Standing } from './stages';
import type { MadeMove } from './valves';

/** By whom and since when. */
export interface Since {
  readonly by: string;
  readonly at: Date;
}

export type OutOfService = Since &
  (
    | { readonly kind: 'manual' | 'bypass'; readonly words: string }
    /** All valves stand as for an isolated instrument, or some do not yet. */
    | { readonly kind: 'isolated' | 'half turned'; readonly lacks: readonly HookUpLack[] }
    | { readonly kind: 'leg lost' }
    /** Test gear is connected, and pressure may stand on it. */
    | { readonly kind: 'test pressure'; readonly standard: string }
    | { readonly kind: 'goes by itself'; readonly bench: string }
  );

export interface OpenJob {
  readonly id: number;
  readonly tag: string;
  readonly service: string;
  readonly area: string;
  readonly hookUp: Arrangement;
  readonly reason: JobReason;
  readonly stage: Standing;
  /** False of one that was signed without its return. */
  readonly isOpen: boolean;
  readonly openedBy: string;
  readonly openedAt: Date;
  /** Points of the run in hand, and how many of them are read; null where none is. */
  readonly points: { readonly done: number; readonly of: number } | null;
  /** What was done last, whatever it was. */
  readonly lastBy: string;
  readonly lastAt: Date;
}

/** An open job with what stands otherwise than in service because of it. */
export type HandedOver = OpenJob & { readonly standing: readonly OutOfService[] };

/** More than a works has in hand; beyond, the page says that there are more. */
const MOST = 2000;

// What may stand otherwise is looked for by itself first, each kind by its own index: jobs are many, and few are open.
const OPEN_SQL = `
  with looked as materialized (
    select id from job where signed_at is null and cancelled_at is null
    union
    select job.id from stage_passed skipped join job on job.id = skipped.job_id join instrument on instrument.id = instrument_id
    where skipped.stage = 'return' and skipped.is_skip and signed_at is not null and instrument.state = 'in service'
      and not exists (
        select from stage_passed back join job later on later.id = back.job_id
        where later.instrument_id = job.instrument_id and back.stage = 'return' and not back.is_skip and back.id > skipped.id)
  )
  select job.id, job.instrument_copy ->> 'tag' as tag, job.instrument_copy ->> 'service' as service,
    job.instrument_copy ->> 'area' as area, coalesce(job.instrument_copy ->> 'hookUp', instrument.hook_up) as "hookUp",
    reason, stage, signed_at is null as "isOpen", name_at(opened_by, opened_at) as "openedBy", opened_at as "openedAt",
    (select json_build_object('of', jsonb_array_length(made_with -> 'points'), 'done',
        (select count(distinct position) from (
           select position from reading where run_id = run.id union select position from point_mark where run_id = run.id
         ) read))
     from run where job_id = job.id and stage = run.kind
       and not exists (select from run_thrown_away where run_id = run.id)
     order by kind desc, pass desc limit 1) as points,
    name_at(last.by, last.at) as "lastBy", last.at as "lastAt"
  from looked join job using (id) join instrument on instrument.id = instrument_id
    join lateral (
      select by, at from (
        select opened_by as by, opened_at as at
        union all (select done_by, done_at from stage_passed where job_id = job.id order by id desc limit 1)
        union all (select moved_by, moved_at from valve_move where job_id = job.id order by id desc limit 1)
        union all (select made_by, made_at from connection where job_id = job.id order by id desc limit 1)
        union all (select made_by, made_at from adjustment where job_id = job.id order by id desc limit 1)
        union all (select read_by, read_at from reading join run on run.id = run_id where job_id = job.id
          order by reading.id desc limit 1)
      ) done order by at desc limit 1
    ) last on true
  order by last.at limit ${MOST + 1}`;

interface Passed extends Since {
  readonly id: number;
  readonly jobId: number;
  readonly stage: Stage | 'review';
  readonly isSkip: boolean;
  readonly answers: readonly Answer[];
}

interface Connected extends Since {
  readonly jobId: number;
  readonly standard: string;
}

interface Automatic extends Since {
  readonly jobId: number;
  readonly bench: string;
}

/** Where the moves of a job left the valves, and since which of them the instrument has been out of service. */
function valvesNow(
  hookUp: Arrangement,
  moves: readonly MadeMove[],
): { readonly state: HookUpState; readonly since: MadeMove | null; readonly legSince: MadeMove | null } {
  let state = inService(hookUp);
  let since: MadeMove | null = null;
  let legSince: MadeMove | null = null;
  for (const move of moves) {
    const before = state;
    ({ state } = moveValve(hookUp, state, move));
    const isInService = lacksOf(hookUp, state, 'in-service').length === 0;
    since = isInService ? null : (since ?? move);
    if (state.isLegLost && !before.isLegLost) legSince = move;
  }
  return { state, since, legSince };
}

const by = ({ movedBy, movedAt }: MadeMove): Since => ({ by: movedBy, at: movedAt });

function ofValves(hookUp: Arrangement, moves: readonly MadeMove[]): OutOfService[] {
  const { state, since, legSince } = valvesNow(hookUp, moves);
  const found: OutOfService[] = [];
  if (since !== null) {
    const lacks = lacksOf(hookUp, state, 'isolated');
    found.push({ kind: lacks.length === 0 ? 'isolated' : 'half turned', lacks, ...by(since) });
  }
  if (legSince !== null) found.push({ kind: 'leg lost', ...by(legSince) });
  return found;
}

/** What was answered before the work, until the instrument was handed back. */
function ofAnswers(passed: readonly Passed[]): OutOfService[] {
  const last = (stage: Stage) => passed.filter((one) => one.stage === stage && !one.isSkip).at(-1);
  const [authorised, returned] = [last('authorise'), last('return')];
  if (authorised === undefined || (returned !== undefined && returned.id > authorised.id)) return [];
  return authorised.answers.flatMap(({ question, answer }): OutOfService[] => {
    if (question === CONTROLLER_QUESTION && answer === IN_MANUAL)
      return [{ kind: 'manual', words: answer, by: authorised.by, at: authorised.at }];
    const isBypassed = BYPASS_QUESTIONS.includes(question) && !/^(none|no|-|—)?$/i.test(answer.trim());
    return isBypassed ? [{ kind: 'bypass', words: answer, by: authorised.by, at: authorised.at }] : [];
  });
}

/** Stages in which test gear is on the line once it was connected; one that is connected once more still has it. */
const CONNECTED: readonly Stage[] = ['connect', 'as-found', 'judge', 'adjust', 'as-left', 'return'];

function ofConnection(stage: Standing, connected: Connected | undefined): OutOfService[] {
  return connected !== undefined && (CONNECTED as readonly Standing[]).includes(stage)
    ? [{ kind: 'test pressure', standard: connected.standard, by: connected.by, at: connected.at }]
    : [];
}

/**
 * What the shift hands over at this moment, the longest untouched first.
 * @returns `isCut` where there is more than one page can name
 */
export async function handOver(
  db: Queryable,
): Promise<{ readonly jobs: readonly HandedOver[]; readonly isCut: boolean }> {
  const found = await db.query<OpenJob>(OPEN_SQL);
  const open = found.slice(0, MOST);
  const ids = [open.map(({ id }) => id)];
  const [moves, passed, connections, automatics] = await Promise.all([
    db.query<MadeMove & { jobId: number }>(
      `select id, job_id as "jobId", stage, valve, moved_to as "to", faults, name_at(moved_by, moved_at) as "movedBy",
         moved_at as "movedAt" from valve_move where job_id = any($1) order by id`,
      ids,
    ),
    db.query<Passed>(
      `select id, job_id as "jobId", stage, is_skip as "isSkip", answers, name_at(done_by, done_at) as by, done_at as at
       from stage_passed where job_id = any($1) order by id`,
      ids,
    ),
    db.query<Connected>(
      `select distinct on (job_id) job_id as "jobId", reference_standard.tag as standard,
         name_at(made_by, made_at) as by, made_at as at
       from connection join reference_module on reference_module.id = pressure_module_id
         join reference_standard on reference_standard.id = reference_id
       where job_id = any($1) order by job_id, connection.id desc`,
      ids,
    ),
    db.query<Automatic>(
      `select run.job_id as "jobId", api_token.name as bench, name_at(automatic_run.started_by, automatic_run.started_at) as by,
         automatic_run.started_at as at
       from automatic_run join run on run.id = run_id join api_token on api_token.id = token_id
       where ended_at is null and run.job_id = any($1)`,
      ids,
    ),
  ]);
  const [movesOf, passedOf] = [
    groupedBy(moves, ({ jobId }) => jobId),
    groupedBy(passed, ({ jobId }) => jobId),
  ];
  const jobs = open.map((job) => ({
    ...job,
    standing: [
      ...automatics
        .filter(({ jobId }) => jobId === job.id)
        .map(({ bench, by: who, at }): OutOfService => ({ kind: 'goes by itself', bench, by: who, at })),
      ...ofConnection(
        job.stage,
        connections.find(({ jobId }) => jobId === job.id),
      ),
      ...ofValves(job.hookUp, movesOf.get(job.id) ?? []),
      ...ofAnswers(passedOf.get(job.id) ?? []),
    ],
  }));
  // One that was signed without its return is named for what it left behind, and for nothing else.
  return {
    jobs: jobs.filter(({ isOpen, standing }) => isOpen || standing.length > 0),
    isCut: found.length > MOST,
  };
}
