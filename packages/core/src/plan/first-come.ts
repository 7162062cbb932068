/** The plan as it comes: the most urgent first, each with the first person and day that has room. What a solved plan is measured by. */
import { timed, wayMinutes, type Assigned } from './timeline';
import type { Placed, PlanProblem } from './problem';
import { isFor, unitsOf, type PlanUnit } from './units';

/** What is taken of a person's day so far. */
interface Day {
  minutes: number;
  readonly areas: Set<string>;
}

const key = (person: string, day: number): string => `${day} ${person}`;

/** Who holds each reference on each day: whoever took it has it for that day. */
class Holders {
  private readonly held = new Map<string, string>();

  constructor(
    private readonly lastDay: ReadonlyMap<string, number>,
    private readonly taken: ReadonlySet<string>,
  ) {}

  /** References that serve each need for one person on a day; null where one has none. */
  choose(needs: PlanUnit['needs'], person: string, day: number): string[] | null {
    const chosen: string[] = [];
    for (const serving of needs) {
      const free = serving.filter((id) => {
        const holder = this.held.get(key(id, day));
        const isFree = !this.taken.has(key(id, day)) && (holder === undefined || holder === person);
        return isFree && (this.lastDay.get(id) ?? -1) >= day;
      });
      // One that the person carries already comes first.
      const one = free.find((id) => this.held.get(key(id, day)) === person || chosen.includes(id)) ?? free[0];
      if (one === undefined) return null;
      chosen.push(one);
    }
    return chosen;
  }

  take(references: readonly string[], person: string, day: number): void {
    for (const id of references) this.held.set(key(id, day), person);
  }
}

/** The references of each job, from those that its unit has. */
export const referencesFor = (
  needs: PlanUnit['needs'],
  unitNeeds: PlanUnit['needs'],
  chosen: readonly string[],
): string[] =>
  needs.map((serving) => chosen[unitNeeds.findIndex((one) => one.join('\0') === serving.join('\0'))] ?? '');

/**
 * Places units in the order that is given, what is fixed before all others.
 * @param taken references that others hold, by day and tag (`0 PC-1`)
 */
export function placeInOrder(
  problem: PlanProblem,
  units: readonly PlanUnit[],
  taken: ReadonlySet<string> = new Set(),
): { readonly assigned: readonly Assigned[]; readonly left: readonly PlanUnit[] } {
  const days = new Map<string, Day>();
  const holders = new Holders(new Map(problem.references.map(({ id, lastDay }) => [id, lastDay])), taken);
  const assigned: Assigned[] = [];
  const left: PlanUnit[] = [];
  const place = (unit: PlanUnit): boolean => {
    for (const day of unit.days)
      for (const { id: person, minutes } of problem.people) {
        if (!isFor(unit, person)) continue;
        const own = days.get(key(person, day)) ?? { minutes: 0, areas: new Set<string>() };
        const areas = new Set([...own.areas, unit.area]);
        if (own.minutes + unit.minutes + wayMinutes(problem, areas.size) > (minutes[day] ?? 0)) continue;
        const references = holders.choose(unit.needs, person, day);
        if (references === null) continue;
        holders.take(references, person, day);
        days.set(key(person, day), { minutes: own.minutes + unit.minutes, areas });
        for (const job of unit.jobs)
          assigned.push({
            job: job.id,
            person,
            day,
            references: referencesFor(job.needs, unit.needs, references),
          });
        return true;
      }
    return false;
  };
  const [fixed, free] = [
    units.filter(({ fixedTo }) => fixedTo !== null),
    units.filter(({ fixedTo }) => fixedTo === null),
  ];
  for (const unit of [...fixed, ...free]) if (!place(unit)) left.push(unit);
  return { assigned, left };
}

/** The most urgent first: by the day on which it is late, then by weight. */
export function firstCome(problem: PlanProblem): Placed[] {
  const units = unitsOf(problem).sort((a, b) => a.lateFrom - b.lateFrom || b.weight - a.weight);
  return timed(problem, placeInOrder(problem, units).assigned);
}
