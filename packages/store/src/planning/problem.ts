/** What is to be planned, from the registers: a problem for the solver, and what stands behind its jobs. */
import { MOST_JOBS, type PlanJob, type PlanProblem } from '@barys/core/plan';
import dayjs from 'dayjs';
import type { Queryable } from '../db/database';
import { minutesByModel, USUAL_MINUTES } from '../insight/figures';
import type { Stage } from '../jobs/stages';
import type { Criticality, Instrument } from '../registers/instrument';
import { instrumentsOf } from '../registers/instruments';
import type { Reference } from '../registers/reference';
import { listReferences } from '../registers/references';
import { quantityWanted, rankReferences, type Side } from '../runs/fit';
import { planSite, shutdownsIn, workersOn, type PlanSite, type Shutdown, type Worker } from './site';

/** How far beyond its last day a plan looks for what can be done along the way, days. */
const LEAD_DAYS = 14;
/** How much further for what is isolated with one of those: it is done while it is isolated. */
const TOGETHER_DAYS = 60;
/** How much hangs on an instrument; common practice is the order, the figures are ours. */
const WEIGHT: Readonly<Record<Criticality, number>> = {
  'safety function': 4,
  quality: 2,
  environment: 2,
  general: 1,
};
/** Times that: overdue, due within the plan, due after it. */
const URGENCY = { overdue: 2, within: 1.5, after: 0.5 } as const;

/** What stands planned, without its time: that follows from the walk. */
export interface Planned {
  readonly id: number;
  readonly revision: number;
  readonly instrumentId: number;
  readonly personId: number;
  /** ISO date. */
  readonly day: string;
  readonly minutes: number;
  readonly isFixed: boolean;
  /** Tags, one for each standard that its job needs. */
  readonly references: readonly string[];
  readonly doneByJob: number | null;
}

/** One instrument that can be planned. */
export interface Candidate {
  readonly instrument: Instrument;
  /** Where its open job stands; null where none is open. */
  readonly openJob: { readonly id: number; readonly stage: Stage | 'review' } | null;
  readonly planned: Planned | null;
}

export interface PlanGround {
  /** ISO dates, in a row. */
  readonly days: readonly string[];
  readonly site: PlanSite;
  readonly workers: readonly Worker[];
  readonly shutdowns: readonly Shutdown[];
  readonly candidates: readonly Candidate[];
  /** How many more there are that were not looked at. */
  readonly left: number;
  readonly references: readonly Reference[];
  readonly problem: PlanProblem;
}

const PLANNED_SQL = `
  select id, revision, instrument_id as "instrumentId", person_id as "personId", day, minutes, is_fixed as "isFixed",
    done_by_job as "doneByJob",
    array(select tag from planned_reference join reference_standard standard on standard.id = reference_id
      where planned_id = planned.id order by place) as references
  from planned`;

/** All that stands on some days, in the order in which it was planned. */
export const plannedOn = (db: Queryable, firstDay: string, lastDay: string): Promise<Planned[]> =>
  db.query<Planned>(`${PLANNED_SQL} where day between $1 and $2 order by id`, [firstDay, lastDay]);

/** ISO dates in a row. */
export const daysFrom = (first: string, count: number): string[] =>
  Array.from({ length: count }, (_, later) => dayjs(first).add(later, 'day').format('YYYY-MM-DD'));

/** What is looked at beside what is planned. */
export interface Looked {
  /** An instrument that is looked at whenever it is due. */
  readonly also?: number | null;
  /** So many that are not planned, those that come due first. */
  readonly most?: number;
}

/** In service, and due by a day, isolated with one that is, planned already, or asked for. */
async function candidatesFor(
  db: Queryable,
  days: readonly string[],
  { also = null, most = MOST_JOBS }: Looked,
): Promise<{ readonly candidates: readonly Candidate[]; readonly left: number }> {
  const last = days.at(-1) ?? '';
  const horizon = dayjs(last).add(LEAD_DAYS, 'day');
  const rows = await db.query<{
    id: number;
    job: Candidate['openJob'];
    planned: number | null;
    count: number;
  }>(
    `with together as materialized (
       select area, isolated_with from instrument
       where isolated_with <> '' and (state = 'in service' and due_on <= $1 or id = $4)
     )
     select instrument.id, planned.id as planned, count(*) over ()::integer as count,
       (select json_build_object('id', job.id, 'stage', stage) from job
        where instrument_id = instrument.id and cancelled_at is null and (signed_at is null or stage = 'review')
        order by id desc limit 1) as job
     from instrument left join planned on planned.instrument_id = instrument.id and done_by_job is null
     where state = 'in service' and (due_on <= $1 or planned.day between $2 and $3 or instrument.id = $4
       or due_on <= $5 and isolated_with <> '' and (area, isolated_with) in (select area, isolated_with from together))
     -- What is planned, asked for, or isolated with others is never left out.
     order by instrument.id is distinct from $4, planned.id is null, isolated_with = '', due_on, instrument.id
     limit $6 + (select count(*) from planned where done_by_job is null)`,
    [
      horizon.format('YYYY-MM-DD'),
      days[0],
      last,
      also,
      horizon.add(TOGETHER_DAYS, 'day').format('YYYY-MM-DD'),
      most,
    ],
  );
  const [instruments, planned] = await Promise.all([
    instrumentsOf(
      db,
      rows.map(({ id }) => id),
    ),
    db.query<Planned>(`${PLANNED_SQL} where id = any($1)`, [rows.flatMap((row) => row.planned ?? [])]),
  ]);
  const rowOf = new Map(rows.map((row) => [row.id, row]));
  const plannedOf = new Map(planned.map((one) => [one.instrumentId, one]));
  return {
    candidates: instruments.map((instrument) => ({
      instrument,
      openJob: rowOf.get(instrument.id)?.job ?? null,
      planned: plannedOf.get(instrument.id) ?? null,
    })),
    left: (rows[0]?.count ?? 0) - rows.length,
  };
}

/** What is read already is not planned any more. */
const READ: readonly (Stage | 'review')[] = ['return', 'sign', 'review'];
export const isRead = ({ openJob }: Candidate): boolean => openJob !== null && READ.includes(openJob.stage);
const isToDo = (candidate: Candidate): boolean => candidate.planned !== null || !isRead(candidate);

const SIDES: readonly Side[] = ['input', 'output'];

/** Tags that serve each standard which an instrument needs, the best first. */
class Serving {
  private readonly known = new Map<string, string[][]>();

  constructor(
    private readonly references: readonly Reference[],
    private readonly today: string,
  ) {}

  of(instrument: Instrument): readonly (readonly string[])[] {
    const { configuration, tolerance, procedure, kind } = instrument;
    const { madeAt: _at, madeBy: _by, version: _version, ...range } = configuration;
    const key = JSON.stringify([range, tolerance, procedure.content, kind]);
    const before = this.known.get(key);
    if (before !== undefined) return before;
    const needs = SIDES.filter((side) => quantityWanted(instrument, side) !== null).map((side) => [
      ...new Set(
        rankReferences(this.references, instrument, side, { today: this.today })
          .filter(({ unfit }) => unfit === null)
          .map(({ reference }) => reference.tag),
      ),
    ]);
    this.known.set(key, needs);
    return needs;
  }
}

/** The days, counted from the first, on which an instrument can be isolated. */
const daysOf = (
  { canBeIsolated, area }: Instrument,
  days: readonly string[],
  shutdowns: readonly Shutdown[],
): number[] =>
  days.flatMap((day, index) =>
    canBeIsolated === 'any time' ||
    shutdowns.some((one) => one.area === area && one.firstDay <= day && day <= one.lastDay)
      ? [index]
      : [],
  );

/** Last day of the plan, counted from its first, on which each reference is in date; its ranges share one certificate. */
const lastDays = (references: readonly Reference[], first: string): Map<string, number> =>
  new Map(
    references.map(({ tag, dueOn, state, heldSince }) => [
      tag,
      dueOn === null || state !== 'in use' || heldSince !== null ? -1 : dayjs(dueOn).diff(first, 'day'),
    ]),
  );

/** Where an instrument stands in the walk, and what is isolated with it. */
export const walked = ({
  id,
  area,
  walk,
  isolatedWith,
}: Instrument): Pick<PlanJob, 'id' | 'area' | 'walk' | 'group'> => ({
  id: String(id),
  area,
  walk: walk ?? 0,
  group: isolatedWith === '' ? null : isolatedWith,
});

function urgencyOf(dueOn: string, [first = '', ...rest]: readonly string[]): number {
  if (dueOn < first) return URGENCY.overdue;
  return dueOn <= (rest.at(-1) ?? first) ? URGENCY.within : URGENCY.after;
}

/** What is known of the works when a plan is made or looked at. */
export async function planGround(
  db: Queryable,
  first: string,
  count: number,
  looked: Looked = {},
): Promise<PlanGround> {
  const days = daysFrom(first, count);
  const last = days.at(-1) ?? first;
  const [site, workers, shutdowns, references, minutes, { candidates, left }] = await Promise.all([
    planSite(db),
    workersOn(db, days),
    shutdownsIn(db, first, last),
    listReferences(db),
    minutesByModel(db),
    candidatesFor(db, days, looked),
  ]);
  const serving = new Serving(references, first);
  const inDate = lastDays(references, first);
  const jobs = candidates.filter(isToDo).map(({ instrument, planned }): PlanJob => ({
    ...walked(instrument),
    minutes: planned?.minutes ?? Math.round(minutes.get(instrument.body.model) ?? USUAL_MINUTES),
    days: daysOf(instrument, days, shutdowns),
    weight: WEIGHT[instrument.criticality] * urgencyOf(instrument.dueOn, days),
    // What is late already loses with each day of the plan.
    lateFrom: Math.max(0, dayjs(instrument.dueOn).diff(first, 'day') + site.graceDays + 1),
    needs: serving.of(instrument),
    fixedTo: null,
  }));
  return {
    days,
    site,
    workers,
    shutdowns,
    candidates,
    left,
    references,
    problem: {
      days: count,
      jobs,
      people: workers.map(({ id, minutes: own }) => ({ id: String(id), minutes: own })),
      references: [...inDate].map(([id, lastDay]) => ({ id, lastDay })),
      walkMinutes: site.walkMinutes,
      permitMinutes: site.permitMinutes,
    },
  };
}

/**
 * The same for a solver: what somebody fixed has no other day, person or reference, whatever it clashes with; what stands on another day
 * stays there. What stands on a day that is past is free again: it was not done.
 * @param today ISO date
 */
export function withFixed({ problem, candidates, days }: PlanGround, today: string): PlanProblem {
  const standing = new Map(
    candidates.flatMap(({ planned }) =>
      planned === null ? [] : [[String(planned.instrumentId), planned] as const],
    ),
  );
  return {
    ...problem,
    jobs: problem.jobs.flatMap((job) => {
      const there = standing.get(job.id);
      if (there === undefined) return [job];
      if (!days.includes(there.day)) return there.day < today ? [job] : [];
      if (!there.isFixed) return [job];
      const needs = job.needs.map((all, place) => [there.references[place] ?? all[0] ?? '']);
      return [{ ...job, days: [days.indexOf(there.day)], needs, fixedTo: String(there.personId) }];
    }),
  };
}
