/**
 * The plan as a mixed-integer program: units to the days of people. A unit is done at most once; a day holds its minutes, walks and
 * permits; whoever does a unit carries references that serve it, and a reference is with one person a day. The worth is that of
 * `planWorth`, without the way home, so that its bound holds for every plan.
 */
import {
  isFor,
  referencesFor,
  WAY_COST,
  worthOn,
  type Assigned,
  type PlanProblem,
  type PlanUnit,
} from '@barys/core/plan';

/** One person's day. */
export interface Slot {
  readonly person: string;
  readonly day: number;
  readonly minutes: number;
}

/** A program in the sparse form that the solver takes: rows of coefficients with their bounds. */
export interface Program {
  readonly cost: number[];
  readonly upper: number[];
  readonly rows: {
    readonly indices: number[];
    readonly values: number[];
    readonly least: number;
    readonly most: number;
  }[];
}

export interface PlanModel {
  readonly program: Program;
  /** Assignments that a solution stands for. */
  readonly read: (solution: readonly number[]) => Assigned[];
  /** The solution that assignments stand for, to begin with. */
  readonly write: (assigned: readonly Assigned[]) => number[];
}

export const slotsOf = ({ people, days }: PlanProblem): Slot[] =>
  Array.from({ length: days }, (_, day) => day).flatMap((day) =>
    people.flatMap(({ id, minutes }) => {
      const most = minutes[day] ?? 0;
      return most > 0 ? [{ person: id, day, minutes: most }] : [];
    }),
  );

/** Columns by what they stand for. */
class Columns {
  readonly program: Program = { cost: [], upper: [], rows: [] };
  private readonly places = new Map<string, number>();

  add(name: string, cost: number): number {
    const place = this.program.cost.push(cost) - 1;
    this.program.upper.push(1);
    this.places.set(name, place);
    return place;
  }

  at(name: string): number | undefined {
    return this.places.get(name);
  }

  row(terms: readonly (readonly [column: number, value: number])[], most: number, least = -Infinity): void {
    if (terms.length === 0) return;
    this.program.rows.push({
      indices: terms.map(([column]) => column),
      values: terms.map(([, value]) => value),
      least,
      most,
    });
  }
}

/** What carrying a reference costs beside the rest: none is carried for nothing. */
const CARRY_COST = 1e-6;

/**
 * @param taken references that somebody holds already, by day and tag
 * @param must units that are done whatever they cost; the caller knows a solution that has them
 */
export function planModel(
  problem: PlanProblem,
  units: readonly PlanUnit[],
  slots: readonly Slot[],
  taken: ReadonlySet<string> = new Set(),
  must: ReadonlySet<PlanUnit> = new Set(),
): PlanModel {
  const { walkMinutes, permitMinutes, references } = problem;
  const columns = new Columns();
  const areas = [...new Set(units.map(({ area }) => area))];
  const way = walkMinutes + permitMinutes;
  const fits = (unit: PlanUnit, slot: Slot) =>
    isFor(unit, slot.person) &&
    unit.days.includes(slot.day) &&
    unit.minutes + way + walkMinutes <= slot.minutes;
  slots.forEach((slot, s) => {
    units.forEach((unit, u) => {
      if (fits(unit, slot)) columns.add(`x${u} ${s}`, worthOn(unit, slot.day));
    });
    for (const area of areas) columns.add(`a${area} ${s}`, -WAY_COST * way);
    for (const { id, lastDay } of references)
      if (lastDay >= slot.day && !taken.has(`${slot.day} ${id}`)) columns.add(`y${id} ${s}`, -CARRY_COST);
  });
  const doing = (u: number, s: number) => columns.at(`x${u} ${s}`);
  units.forEach((unit, u) =>
    columns.row(
      slots.flatMap((__, s): [number, number][] => {
        const x = doing(u, s);
        return x === undefined ? [] : [[x, 1]];
      }),
      1,
      must.has(unit) ? 1 : undefined,
    ),
  );
  slots.forEach((slot, s) => {
    const used: [number, number][] = [];
    units.forEach((unit, u) => {
      const x = doing(u, s);
      if (x === undefined) return;
      used.push([x, unit.minutes]);
      const area = columns.at(`a${unit.area} ${s}`);
      if (area !== undefined)
        columns.row(
          [
            [x, 1],
            [area, -1],
          ],
          0,
        );
      for (const serving of unit.needs) {
        const carried = serving.flatMap((id) => columns.at(`y${id} ${s}`) ?? []);
        columns.row([[x, 1], ...carried.map((y): [number, number] => [y, -1])], 0);
      }
    });
    for (const area of areas) {
      const place = columns.at(`a${area} ${s}`);
      if (place !== undefined) used.push([place, way]);
    }
    columns.row(used, slot.minutes - walkMinutes);
  });
  for (const { id } of references)
    for (const day of new Set(slots.map((slot) => slot.day)))
      columns.row(
        slots.flatMap((slot, s): [number, number][] => {
          const y = slot.day === day ? columns.at(`y${id} ${s}`) : undefined;
          return y === undefined ? [] : [[y, 1]];
        }),
        1,
      );
  return {
    program: columns.program,
    read: (solution) => readSolution(columns, units, slots, solution),
    write: (assigned) => writeSolution(columns, units, slots, assigned),
  };
}

const isOn = (columns: Columns, name: string, solution: readonly number[]): boolean => {
  const place = columns.at(name);
  return place !== undefined && (solution[place] ?? 0) > 0.5;
};

function readSolution(
  columns: Columns,
  units: readonly PlanUnit[],
  slots: readonly Slot[],
  solution: readonly number[],
): Assigned[] {
  return slots.flatMap(({ person, day }, s) =>
    units.flatMap((unit, u) => {
      if (!isOn(columns, `x${u} ${s}`, solution)) return [];
      const chosen = unit.needs.map(
        (serving) => serving.find((id) => isOn(columns, `y${id} ${s}`, solution)) ?? '',
      );
      return unit.jobs.map((job) => ({
        job: job.id,
        person,
        day,
        references: referencesFor(job.needs, unit.needs, chosen),
      }));
    }),
  );
}

function writeSolution(
  columns: Columns,
  units: readonly PlanUnit[],
  slots: readonly Slot[],
  assigned: readonly Assigned[],
): number[] {
  const solution = columns.program.cost.map(() => 0);
  const set = (name: string) => {
    const place = columns.at(name);
    if (place !== undefined) solution[place] = 1;
  };
  const unitOf = new Map(units.flatMap((unit, u) => unit.jobs.map(({ id }) => [id, u] as const)));
  const slotOf = new Map(slots.map(({ person, day }, s) => [`${day} ${person}`, s]));
  for (const { job, person, day, references } of assigned) {
    const [u, s] = [unitOf.get(job), slotOf.get(`${day} ${person}`)];
    if (u === undefined || s === undefined) continue;
    set(`x${u} ${s}`);
    set(`a${units[u]?.area} ${s}`);
    for (const id of references) set(`y${id} ${s}`);
  }
  return solution;
}

/**
 * A bound of the worth that no plan exceeds: people of a day taken together, units in parts, references by the minutes that they can be
 * in use. A linear program, small enough for thousands of jobs.
 */
export function boundProgram(problem: PlanProblem, units: readonly PlanUnit[]): Program {
  const { walkMinutes, permitMinutes, references, people } = problem;
  const columns = new Columns();
  const way = walkMinutes + permitMinutes;
  const days = Array.from({ length: problem.days }, (_, day) => day);
  const minutesOn = (day: number) =>
    people.map(({ minutes }) => minutes[day] ?? 0).filter((most) => most > 0);
  for (const day of days) {
    units.forEach((unit, u) => {
      if (unit.days.includes(day)) columns.add(`x${u} ${day}`, worthOn(unit, day));
    });
    for (const area of new Set(units.map((unit) => unit.area)))
      columns.add(`a${area} ${day}`, -WAY_COST * way);
  }
  units.forEach((_, u) =>
    columns.row(
      days.flatMap((day): [number, number][] => {
        const x = columns.at(`x${u} ${day}`);
        return x === undefined ? [] : [[x, 1]];
      }),
      1,
    ),
  );
  const choices = new Map(
    units.flatMap(({ needs }) => needs).map((serving) => [serving.join('\0'), new Set(serving)]),
  );
  for (const day of days) {
    const there = minutesOn(day);
    const used: [number, number][] = [];
    units.forEach((unit, u) => {
      const [x, area] = [columns.at(`x${u} ${day}`), columns.at(`a${unit.area} ${day}`)];
      if (x === undefined || area === undefined) return;
      used.push([x, unit.minutes]);
      columns.row(
        [
          [x, 1],
          [area, -1],
        ],
        0,
      );
    });
    for (const area of new Set(units.map((unit) => unit.area))) {
      const place = columns.at(`a${area} ${day}`);
      if (place !== undefined) used.push([place, way]);
    }
    columns.row(
      used,
      there.reduce((sum, most) => sum + most - walkMinutes, 0),
    );
    for (const serving of choices.values()) {
      const valid = references.filter(({ id, lastDay }) => serving.has(id) && lastDay >= day).length;
      columns.row(
        units.flatMap((unit, u): [number, number][] => {
          const x = columns.at(`x${u} ${day}`);
          const isServed = unit.needs.some((need) => need.every((id) => serving.has(id)));
          return x !== undefined && isServed ? [[x, unit.minutes]] : [];
        }),
        valid * Math.max(0, ...there),
      );
    }
  }
  return columns.program;
}
