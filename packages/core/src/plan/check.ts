/**
 * Whether a plan can be done, found from its placements alone: it knows nothing of how a plan is made, so that it proves one that was
 * solved as well as one that was moved by hand.
 */
import type { Placed, PlanJob, PlanProblem } from './problem';

export type Clash =
  | { readonly kind: 'unknown'; readonly job: string; readonly what: 'job' | 'person' | 'day' }
  | { readonly kind: 'twice'; readonly job: string }
  /** Fixed to somebody else. */
  | { readonly kind: 'not-by'; readonly job: string; readonly person: string }
  | { readonly kind: 'not-then'; readonly job: string; readonly day: number }
  /** Before the way to it is walked and the job before is done. */
  | {
      readonly kind: 'overlap';
      readonly job: string;
      readonly before: string | null;
      readonly minutes: number;
    }
  /** Minutes beyond the end of work. */
  | { readonly kind: 'overtime'; readonly job: string; readonly person: string; readonly minutes: number }
  | { readonly kind: 'needs'; readonly job: string; readonly place: number }
  | { readonly kind: 'unfit'; readonly job: string; readonly reference: string }
  | { readonly kind: 'out-of-date'; readonly job: string; readonly reference: string }
  /** In another job at the same time; the later one is named first. */
  | {
      readonly kind: 'in-use';
      readonly job: string;
      readonly reference: string;
      readonly by: string;
      readonly until: number;
    }
  | { readonly kind: 'split'; readonly job: string; readonly group: string };

/** What is isolated together in one area; null of a job that stands by itself. Nobody stands in two areas at once. */
const pieceOf = ({ group, area }: PlanJob): string | null => (group === null ? null : `${group}\0${area}`);

interface Known {
  readonly placed: Placed;
  readonly job: PlanJob;
}

const endOf = ({ placed, job }: Known): number => placed.start + job.minutes;

/** Clashes of one job by itself. */
function alone({ days, people, references }: PlanProblem, { placed, job }: Known): Clash[] {
  const found: Clash[] = [];
  if (!people.some(({ id }) => id === placed.person))
    found.push({ kind: 'unknown', job: job.id, what: 'person' });
  else if (job.fixedTo !== null && job.fixedTo !== placed.person)
    found.push({ kind: 'not-by', job: job.id, person: job.fixedTo });
  if (!Number.isInteger(placed.day) || placed.day < 0 || placed.day >= days)
    found.push({ kind: 'unknown', job: job.id, what: 'day' });
  else if (!job.days.includes(placed.day)) found.push({ kind: 'not-then', job: job.id, day: placed.day });
  job.needs.forEach((serving, place) => {
    const id = placed.references[place];
    const reference = references.find((one) => one.id === id);
    if (id === undefined || reference === undefined) found.push({ kind: 'needs', job: job.id, place });
    else if (!serving.includes(id)) found.push({ kind: 'unfit', job: job.id, reference: id });
    else if (reference.lastDay < placed.day) found.push({ kind: 'out-of-date', job: job.id, reference: id });
  });
  return found;
}

/** Clashes in one person's day: no job before the way to it is walked, none beyond the end of work, groups in one piece. */
function inDay(problem: PlanProblem, day: readonly Known[]): Clash[] {
  const { walkMinutes, permitMinutes, people } = problem;
  const ordered = [...day].sort((a, b) => a.placed.start - b.placed.start);
  const found: Clash[] = [];
  const permits = new Set<string>();
  let before: Known | null = null;
  for (const one of ordered) {
    const way: number = before?.job.area === one.job.area ? 0 : walkMinutes;
    const permit = permits.has(one.job.area) ? 0 : permitMinutes;
    permits.add(one.job.area);
    const earliest: number = (before === null ? 0 : endOf(before)) + way + permit;
    if (one.placed.start < earliest)
      found.push({
        kind: 'overlap',
        job: one.job.id,
        before: before?.job.id ?? null,
        minutes: earliest - one.placed.start,
      });
    before = one;
  }
  const last = ordered.reduce<Known | null>((a, b) => (a === null || endOf(b) > endOf(a) ? b : a), null);
  const person = people.find(({ id }) => id === last?.placed.person);
  if (last !== null && person !== undefined) {
    const over = endOf(last) + walkMinutes - (person.minutes[last.placed.day] ?? 0);
    if (over > 0) found.push({ kind: 'overtime', job: last.job.id, person: person.id, minutes: over });
  }
  return [...found, ...splitIn(ordered)];
}

/** Groups of which another job lies between two of theirs. */
function splitIn(ordered: readonly Known[]): Clash[] {
  const found: Clash[] = [];
  const ended = new Set<string>();
  let current: string | null = null;
  for (const { job } of ordered) {
    const piece = pieceOf(job);
    if (piece !== current && current !== null) ended.add(current);
    if (piece !== null && ended.has(piece))
      found.push({ kind: 'split', job: job.id, group: job.group ?? '' });
    current = piece;
  }
  return found;
}

/** Groups that are done by more than one person or on more than one day; the smaller part is named. */
function splitOver(known: readonly Known[]): Clash[] {
  const pieces = new Map<string, Map<string, Known[]>>();
  for (const one of known) {
    const piece = pieceOf(one.job);
    if (piece === null) continue;
    const parts = pieces.get(piece) ?? new Map<string, Known[]>();
    const key = `${one.placed.day} ${one.placed.person}`;
    parts.set(key, [...(parts.get(key) ?? []), one]);
    pieces.set(piece, parts);
  }
  return [...pieces.values()].flatMap((parts) =>
    [...parts.values()]
      .sort((a, b) => b.length - a.length)
      .slice(1)
      .flatMap((part) =>
        part.map(({ job }): Clash => ({ kind: 'split', job: job.id, group: job.group ?? '' })),
      ),
  );
}

/** References that two jobs have at once: intervals that touch do not. */
function inUse(known: readonly Known[]): Clash[] {
  const uses = new Map<string, Known[]>();
  for (const one of known)
    for (const reference of new Set(one.placed.references)) {
      const key = `${one.placed.day} ${reference}`;
      uses.set(key, [...(uses.get(key) ?? []), one]);
    }
  return [...uses].flatMap(([key, all]) => {
    const reference = key.slice(key.indexOf(' ') + 1);
    const ordered = [...all].sort((a, b) => a.placed.start - b.placed.start);
    let holder: Known | null = null;
    return ordered.flatMap((one): Clash[] => {
      const before: Known | null = holder;
      if (before === null || endOf(one) > endOf(before)) holder = one;
      return before !== null && one.placed.start < endOf(before) && before.placed.person !== one.placed.person
        ? [{ kind: 'in-use', job: one.job.id, reference, by: before.job.id, until: endOf(before) }]
        : [];
    });
  });
}

/** All that a plan breaks; nothing of one that can be done. */
export function clashesOf(problem: PlanProblem, plan: readonly Placed[]): Clash[] {
  const jobs = new Map(problem.jobs.map((job) => [job.id, job]));
  const found: Clash[] = [];
  const seen = new Set<string>();
  const known: Known[] = [];
  for (const placed of plan) {
    const job = jobs.get(placed.job);
    if (job === undefined) found.push({ kind: 'unknown', job: placed.job, what: 'job' });
    else if (seen.has(job.id)) found.push({ kind: 'twice', job: job.id });
    else known.push({ placed, job });
    seen.add(placed.job);
  }
  const days = new Map<string, Known[]>();
  for (const one of known) {
    const key = `${one.placed.day} ${one.placed.person}`;
    days.set(key, [...(days.get(key) ?? []), one]);
  }
  return [
    ...found,
    ...known.flatMap((one) => alone(problem, one)),
    ...[...days.values()].flatMap((day) => inDay(problem, day)),
    ...splitOver(known),
    ...inUse(known),
  ];
}
