/** What is placed as one: a job, or all that is isolated together. */
import type { PlanJob, PlanProblem } from './problem';

export interface PlanUnit {
  readonly jobs: readonly PlanJob[];
  readonly minutes: number;
  readonly area: string;
  readonly days: readonly number[];
  readonly weight: number;
  readonly lateFrom: number;
  /** All that its jobs need, each choice once. */
  readonly needs: readonly (readonly string[])[];
  /** Who has it, where one of its jobs is fixed. */
  readonly fixedTo: string | null;
}

function unitOf(jobs: readonly PlanJob[]): PlanUnit {
  const [first] = jobs as readonly [PlanJob, ...PlanJob[]];
  const holders = [...new Set(jobs.flatMap(({ fixedTo }) => fixedTo ?? []))];
  const needs = new Map(jobs.flatMap((job) => job.needs).map((serving) => [serving.join('\0'), serving]));
  return {
    jobs,
    minutes: jobs.reduce((sum, { minutes }) => sum + minutes, 0),
    area: first.area,
    // What is fixed to two people cannot be done together on any day.
    days: holders.length > 1 ? [] : first.days.filter((day) => jobs.every(({ days }) => days.includes(day))),
    weight: jobs.reduce((sum, { weight }) => sum + weight, 0),
    lateFrom: Math.min(...jobs.map(({ lateFrom }) => lateFrom)),
    needs: [...needs.values()],
    fixedTo: holders[0] ?? null,
  };
}

/** The units of a problem, in the order of their first jobs. Jobs of one group in two areas are two units: one cannot stand at both. */
export function unitsOf({ jobs }: Pick<PlanProblem, 'jobs'>): PlanUnit[] {
  const groups = new Map<string, PlanJob[]>();
  for (const job of jobs) {
    const key = job.group === null ? `job ${job.id}` : `group ${job.group} ${job.area}`;
    groups.set(key, [...(groups.get(key) ?? []), job]);
  }
  return [...groups.values()].map(unitOf);
}

/** Whether a person may do a unit. */
export const isFor = ({ fixedTo }: Pick<PlanUnit, 'fixedTo'>, person: string): boolean =>
  fixedTo === null || fixedTo === person;

/** What a unit done on a day is worth: its weight, less a tenth of it for each day that it is late, never below a tenth. */
export const worthOn = ({ weight, lateFrom }: Pick<PlanUnit, 'weight' | 'lateFrom'>, day: number): number =>
  weight * Math.max(0.1, 1 - 0.1 * Math.max(0, day - lateFrom + 1));

/** What a minute on the way costs beside that, so that of two plans of one worth the shorter way leads. */
export const WAY_COST = 0.001;
