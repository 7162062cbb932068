/**
 * Makes a plan with HiGHS, compiled to WebAssembly. A small problem is one program; a large one is taken day by day and crew by crew,
 * each a program of its own that begins with the plan as it comes, so that it is never worse than that.
 */
import {
  clashesOf,
  firstCome,
  placeInOrder,
  planWorth,
  timed,
  unitsOf,
  worthOn,
  type Assigned,
  type Placed,
  type PlanProblem,
  type PlanUnit,
} from '@barys/core/plan';
import loadHighs from 'highs';
import { boundProgram, planModel, slotsOf, type Program, type Slot } from './model';

type Highs = Awaited<ReturnType<typeof loadHighs>>;

export interface MadePlan {
  readonly plan: readonly Placed[];
  readonly worth: number;
  /** No plan is worth more, whoever has which reference when. */
  readonly bound: number;
  /** How far the plan may be from that bound, as a part of it. */
  readonly gap: number;
  /** The same against the best plan in which each reference stays with one person for a day; null where the problem was taken in parts. */
  readonly provedGap: number | null;
}

export interface SolveOptions {
  /** For all programs together. */
  readonly seconds: number;
  /** Told how far it is, from 0 to 1; where it answers false, nothing better is looked for. */
  readonly watch?: (part: number) => boolean | Promise<boolean>;
}

/** Columns of one program; above, the problem is taken in parts. */
const MOST_COLUMNS = 4000;
/** Units that a part is offered beyond what its days can hold. */
const OFFERED = 1.6;
const GAP = 0.002;
/** People of a day that are solved together. */
const CREW = 4;

interface Solved {
  readonly values: number[];
  readonly worth: number;
  /** No solution is worth more. */
  readonly bound: number;
}

/** Solves a program; null where the solver found nothing within its time. */
function solve(
  highs: Highs,
  { cost, upper, rows }: Program,
  {
    isInteger,
    seconds,
    start,
  }: { readonly isInteger: boolean; readonly seconds: number; readonly start?: readonly number[] },
): Solved | null {
  if (cost.length === 0) return { values: [], worth: 0, bound: 0 };
  const starts: number[] = [];
  const indices: number[] = [];
  const values: number[] = [];
  for (const row of rows) {
    starts.push(indices.length);
    indices.push(...row.indices);
    values.push(...row.values);
  }
  starts.push(indices.length);
  return highs.withModel<Solved | null>(
    {
      numCols: cost.length,
      numRows: rows.length,
      sense: highs.constants.objectiveSense.maximize,
      colCost: cost,
      colLower: cost.map(() => 0),
      colUpper: upper,
      rowLower: rows.map(({ least }) => (Number.isFinite(least) ? least : -highs.infinity)),
      rowUpper: rows.map(({ most }) => most),
      matrix: {
        format: 'csr',
        numRows: rows.length,
        numCols: cost.length,
        starts,
        indices,
        values,
      },
      ...(isInteger ? { integrality: cost.map(() => highs.constants.variableType.integer) } : {}),
    },
    (model) => {
      model.options.set({ output_flag: false, time_limit: Math.max(0.2, seconds), mip_rel_gap: GAP });
      if (start !== undefined) model.setSolution({ colValue: start });
      model.run();
      const values = [...model.getSolution().colValue];
      const worth = model.getObjectiveValue();
      if (values.length !== cost.length || !Number.isFinite(worth)) return null;
      const proved = isInteger ? Number(model.info.get('mip_dual_bound')) : worth;
      return { values, worth, bound: Number.isFinite(proved) ? proved : Infinity };
    },
  );
}

/** The parts that a problem is taken in: one for all where it is small, else each day's people in crews. */
function partsOf(problem: PlanProblem, units: readonly PlanUnit[]): Slot[][] {
  const slots = slotsOf(problem);
  const perSlot = units.length + problem.references.length + new Set(units.map(({ area }) => area)).size;
  if (slots.length * perSlot <= MOST_COLUMNS) return [slots];
  return Array.from({ length: problem.days }, (_, day) => slots.filter((slot) => slot.day === day)).flatMap(
    (day) =>
      Array.from({ length: Math.ceil(day.length / CREW) }, (_, part) =>
        day.slice(part * CREW, (part + 1) * CREW),
      ),
  );
}

/** What a part is offered: the worthiest for its days, somewhat more than it can hold, area by area. */
function offeredTo(slots: readonly Slot[], units: readonly PlanUnit[]): PlanUnit[] {
  const days = new Set(slots.map(({ day }) => day));
  const [first = 0] = days;
  const room = slots.reduce((sum, { minutes }) => sum + minutes, 0) * OFFERED;
  const able = units
    .filter((unit) => unit.days.some((day) => days.has(day)))
    .sort(
      (a, b) => worthOn(b, first) / b.minutes - worthOn(a, first) / a.minutes || a.area.localeCompare(b.area),
    );
  let taken = 0;
  return able.filter(({ minutes }) => (taken += minutes) <= room || days.size > 1);
}

/** The problem of one part, with nothing else in it. */
const partOf = (problem: PlanProblem, slots: readonly Slot[], units: readonly PlanUnit[]): PlanProblem => ({
  ...problem,
  jobs: units.flatMap(({ jobs }) => jobs),
  people: problem.people
    .filter(({ id }) => slots.some(({ person }) => person === id))
    .map(({ id }) => ({
      id,
      minutes: Array.from(
        { length: problem.days },
        (_, day) => slots.find((slot) => slot.person === id && slot.day === day)?.minutes ?? 0,
      ),
    })),
});

interface Part {
  readonly slots: readonly Slot[];
  readonly units: readonly PlanUnit[];
  /** References that others hold, by day and tag. */
  readonly taken: ReadonlySet<string>;
  readonly seconds: number;
  /** What stands there already. */
  readonly before: readonly Assigned[];
}

/** Solves a part, from what stands there or what comes of taking the units in order; the best of the three counts. */
function solvePart(
  highs: Highs,
  problem: PlanProblem,
  { slots, units, taken, seconds, before }: Part,
): { readonly assigned: readonly Assigned[]; readonly bound: number } {
  const part = partOf(problem, slots, units);
  const ranked = (candidates: readonly (readonly Assigned[])[]) =>
    candidates
      .map((assigned) => ({ assigned, plan: timed(part, assigned) }))
      .filter(({ plan }) => clashesOf(part, plan).length === 0)
      .sort((a, b) => planWorth(part, b.plan) - planWorth(part, a.plan))
      .map(({ assigned }) => assigned);
  const own = new Set(before.map(({ job }) => job));
  const must = new Set(
    units.filter(({ fixedTo, jobs }) => fixedTo !== null && jobs.some(({ id }) => own.has(id))),
  );
  const holdsAll = (assigned: readonly Assigned[]) => {
    const there = new Set(assigned.map(({ job }) => job));
    return [...must].every(({ jobs }) => jobs.every(({ id }) => there.has(id)));
  };
  const [start = []] = ranked([before, placeInOrder(part, units, taken).assigned].filter(holdsAll));
  const model = planModel(part, units, slots, taken, must);
  const found = solve(highs, model.program, { isInteger: true, seconds, start: model.write(start) });
  const [best = []] = ranked([start, ...(found === null ? [] : [model.read(found.values)])]);
  return { assigned: best, bound: found?.bound ?? Infinity };
}

/** The bound of a problem; where the solver does not come to it, the worth of all units. */
function boundOf(highs: Highs, problem: PlanProblem, units: readonly PlanUnit[], seconds: number): number {
  const most = units.reduce(
    (sum, unit) => sum + Math.max(0, ...unit.days.map((day) => worthOn(unit, day))),
    0,
  );
  const found = solve(highs, boundProgram(problem, units), { isInteger: false, seconds });
  return found === null ? most : Math.min(most, found.worth);
}

/** A plan in the making: what each day holds, what is left, and who has which reference. */
class Making {
  assigned: readonly Assigned[];

  constructor(
    private readonly highs: Highs,
    private readonly problem: PlanProblem,
    private readonly units: readonly PlanUnit[],
  ) {
    // What is fixed stands from the beginning, so that no part gives its reference away.
    this.assigned = placeInOrder(
      problem,
      units.filter(({ fixedTo }) => fixedTo !== null),
    ).assigned;
  }

  private static isIn(slots: readonly Slot[], { day, person }: Assigned): boolean {
    return slots.some((slot) => slot.day === day && slot.person === person);
  }

  /** Solves some days anew, with what they hold and what is left; the rest stays. */
  resolve(slots: readonly Slot[], seconds: number): number {
    const kept = this.assigned.filter((one) => !Making.isIn(slots, one));
    const before = this.assigned.filter((one) => Making.isIn(slots, one));
    const done = new Set(kept.map(({ job }) => job));
    const own = new Set(before.map(({ job }) => job));
    const free = this.units.filter(({ jobs }) => !jobs.some(({ id }) => done.has(id)));
    const holds = (unit: PlanUnit) => unit.jobs.some(({ id }) => own.has(id));
    const offered = [
      ...free.filter(holds),
      ...offeredTo(
        slots,
        free.filter((unit) => !holds(unit)),
      ),
    ];
    const taken = new Set(kept.flatMap(({ day, references }) => references.map((id) => `${day} ${id}`)));
    const { assigned, bound } = solvePart(this.highs, this.problem, {
      slots,
      units: offered,
      taken,
      seconds,
      before,
    });
    this.assigned = [...kept, ...assigned];
    return bound;
  }
}

/** Some days that are solved together once more: of two people over all days, or of all people on one day, by turns. */
function neighbours(slots: readonly Slot[], turn: number): Slot[] {
  const people = [...new Set(slots.map(({ person }) => person))];
  const days = [...new Set(slots.map(({ day }) => day))];
  if (turn % 2 === 0) {
    const first = people[(turn / 2) % people.length];
    const second =
      people[(turn / 2 + 1 + (Math.floor(turn / 2 / people.length) % people.length)) % people.length];
    return slots.filter(({ person }) => person === first || person === second);
  }
  const day = days[((turn - 1) / 2) % days.length];
  const from = Math.floor((turn - 1) / 2 / days.length) * CREW;
  return slots
    .filter((slot) => slot.day === day)
    .flatMap((slot, index, all) => ((index - from + all.length * 8) % all.length < 2 * CREW ? [slot] : []));
}

/** Makes a plan, proves that it can be done, and says how far from the best it may be. */
export async function makePlan(problem: PlanProblem, { seconds, watch }: SolveOptions): Promise<MadePlan> {
  const highs = await loadHighs();
  const units = unitsOf(problem);
  const begun = performance.now();
  const part = () => Math.min(1, (performance.now() - begun) / 1000 / seconds);
  const relaxed = boundOf(highs, problem, units, Math.max(2, seconds / 6));
  const making = new Making(highs, problem, units);
  const parts = partsOf(problem, units);
  let proved = Infinity;
  let goesOn = true;
  for (const [index, slots] of parts.entries()) {
    if (!goesOn) break;
    proved = making.resolve(
      slots,
      ((1 - part()) * seconds * (parts.length > 1 ? 0.5 : 1)) / (parts.length - index),
    );
    goesOn = (await watch?.(part())) ?? true;
  }
  const slots = slotsOf(problem);
  // What was taken in parts is solved anew, part over part, while there is time.
  for (let turn = 0; goesOn && parts.length > 1 && part() < 0.97; turn += 1) {
    making.resolve(neighbours(slots, turn), Math.min(2, (1 - part()) * seconds));
    goesOn = (await watch?.(part())) ?? true;
  }
  const [plan = []] = [timed(problem, making.assigned), firstCome(problem)]
    .filter((one) => clashesOf(problem, one).length === 0)
    .sort((a, b) => planWorth(problem, b) - planWorth(problem, a));
  const worth = planWorth(problem, plan);
  const gapTo = (bound: number) => (bound <= worth ? 0 : (bound - worth) / bound);
  await watch?.(1);
  return {
    plan,
    worth,
    bound: Math.max(worth, relaxed),
    gap: gapTo(relaxed),
    provedGap: parts.length === 1 && Number.isFinite(proved) ? gapTo(proved) : null,
  };
}
