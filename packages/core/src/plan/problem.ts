/** A plan of calibrations over some days: what is to be done, who is there, which references serve, and what was decided. */

/** One job to be placed. */
export interface PlanJob {
  readonly id: string;
  /** Expected time at the instrument, whole minutes. */
  readonly minutes: number;
  readonly area: string;
  /** Place in the walk through its area. */
  readonly walk: number;
  /** What is isolated together is done together, by one person one after the other; null where it stands by itself. */
  readonly group: string | null;
  /** Days on which it can be done: the plant lets it be isolated then. */
  readonly days: readonly number[];
  /** How much hangs on it, greater than zero. */
  readonly weight: number;
  /** The first day on which it is late; days of the plan and later. */
  readonly lateFrom: number;
  /** For each standard that is needed, the references that serve, the best first. */
  readonly needs: readonly (readonly string[])[];
  /** Who has it, where it is fixed: it is placed before all others, with that person; its days and needs leave no other choice. */
  readonly fixedTo: string | null;
}

export interface PlanPerson {
  readonly id: string;
  /** Minutes at work, day by day. */
  readonly minutes: readonly number[];
}

export interface PlanReference {
  readonly id: string;
  /** Last day on which it is in date; negative where it is away or has run out. */
  readonly lastDay: number;
}

export interface PlanProblem {
  readonly days: number;
  readonly jobs: readonly PlanJob[];
  readonly people: readonly PlanPerson[];
  readonly references: readonly PlanReference[];
  /** From the shop to an area, from one to the next, and back: each of these. */
  readonly walkMinutes: number;
  /** For the permit, which is asked for once an area, a person and a day. */
  readonly permitMinutes: number;
}

/** Where a job was put. */
export interface Placed {
  readonly job: string;
  readonly person: string;
  readonly day: number;
  /** Minutes after the start of work. */
  readonly start: number;
  /** One for each standard that is needed. */
  readonly references: readonly string[];
}

/** Longest plan, and its most jobs: beyond, a plan is made for a part of it. */
export const MOST_DAYS = 14;
export const MOST_JOBS = 5000;
