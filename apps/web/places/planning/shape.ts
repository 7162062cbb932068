/** A plan as its board shows it: days, people, cards, bars of references, and what found no place. */
import type { OnTheWay, Week } from '@barys/store/planning';
import { clashAtOther, clashInWords, clockAt, whyInWords, type Names } from './words';

export interface Card {
  readonly instrumentId: number;
  /** Of what is planned; null where nothing is. */
  readonly revision: number | null;
  readonly tag: string;
  readonly service: string;
  readonly area: string;
  readonly dueOn: string;
  /** What is isolated with it; empty where it stands by itself. */
  readonly isolatedWith: string;
  readonly personId: number | null;
  readonly day: string | null;
  /** When it begins, `07:20`. */
  readonly clock: string | null;
  readonly minutes: number;
  readonly references: readonly string[];
  /** For each standard that it needs, the references that serve. */
  readonly serving: readonly (readonly string[])[];
  readonly isFixed: boolean;
  /** What it breaks, in words. */
  readonly clashes: readonly string[];
  /** Its job in hand, or the one that has done it. */
  readonly jobId: number | null;
  readonly isDone: boolean;
  /** Why it has no place; null where it has one. */
  readonly whyNot: string | null;
}

export interface BoardDay {
  readonly day: string;
  readonly isPast: boolean;
  readonly isToday: boolean;
}

export interface BoardPerson {
  readonly id: number;
  readonly name: string;
  /** Day by day: at work, and given away. */
  readonly minutes: readonly number[];
  readonly used: readonly number[];
}

/** A reference in somebody's hands. */
export interface Use {
  readonly tag: string;
  readonly day: string;
  /** Minutes after the start of work. */
  readonly from: number;
  readonly to: number;
  readonly isClash: boolean;
}

export interface Bar {
  readonly reference: string;
  /** ISO date; null where it has none. */
  readonly until: string | null;
  readonly uses: readonly Use[];
}

export interface Board {
  readonly days: readonly BoardDay[];
  readonly people: readonly BoardPerson[];
  readonly cards: readonly Card[];
  readonly notPlaced: readonly Card[];
  /** How many more found no place than are named. */
  readonly unnamed: number;
  readonly shutdowns: Week['shutdowns'];
  readonly bars: readonly Bar[];
  readonly dayBegins: string;
  readonly graceDays: number;
}

/** So many of what found no place are named; the list of instruments has all. */
const MOST_NAMED = 60;
/** What wants somebody's hand first. */
const WHY_ORDER = ['not-done', 'no-room', 'no-reference', 'no-shutdown', 'in-hand', 'due-later'] as const;

function namesOf(week: Week): Names {
  const { days, site, placed, candidates, workers, problem } = week;
  const instruments = new Map(candidates.map(({ instrument }) => [String(instrument.id), instrument]));
  const there = new Map(placed.map((one) => [one.job, one]));
  const people = new Map(workers.map((worker) => [String(worker.id), worker]));
  const inDate = new Map(problem.references.map(({ id, lastDay }) => [id, lastDay]));
  const person = (id: string): string => people.get(id)?.name ?? 'somebody';
  return {
    days,
    clock: (minutes) => clockAt(site.dayBegins, minutes),
    tag: (job) => instruments.get(job)?.tag ?? job,
    area: (job) => instruments.get(job)?.area ?? '',
    with: (job) => person(there.get(job)?.person ?? ''),
    startOf: (job) => there.get(job)?.start ?? 0,
    person,
    isAtWork: (id, day) => (people.get(id)?.minutes[day] ?? 0) > 0,
    dayOf: (job) => there.get(job)?.day ?? -1,
    lastDay: (reference) => inDate.get(reference) ?? -1,
  };
}

/** What each job breaks, in words; at both jobs where two want one reference. */
function clashWords(week: Week): Map<string, string[]> {
  const names = namesOf(week);
  const words = new Map<string, string[]>();
  const add = (job: string, said: string) => words.set(job, [...(words.get(job) ?? []), said]);
  for (const clash of week.clashes) {
    add(clash.job, clashInWords(clash, names));
    const other = clashAtOther(clash, names);
    if (other !== null) add(other.job, other.words);
  }
  return words;
}

type Instrument = Week['candidates'][number]['instrument'];

const faceOf = ({ id, tag, service, area, dueOn, isolatedWith }: Instrument) => ({
  instrumentId: id,
  tag,
  service,
  area,
  dueOn,
  isolatedWith,
});

function placedCards(week: Week): Card[] {
  const words = clashWords(week);
  const jobs = new Map(week.problem.jobs.map((job) => [job.id, job]));
  const candidates = new Map(week.candidates.map((one) => [String(one.instrument.id), one]));
  return week.placed.flatMap(({ job, start, planned }): Card[] => {
    const candidate = candidates.get(job);
    if (candidate === undefined) return [];
    return [
      {
        ...faceOf(candidate.instrument),
        revision: planned.revision,
        personId: planned.personId,
        day: planned.day,
        clock: clockAt(week.site.dayBegins, start),
        minutes: planned.minutes,
        references: planned.references,
        serving: jobs.get(job)?.needs ?? [],
        isFixed: planned.isFixed,
        clashes: words.get(job) ?? [],
        jobId: candidate.openJob?.id ?? null,
        isDone: false,
        whyNot: null,
      },
    ];
  });
}

function doneCards({ done }: Week, known: ReadonlyMap<number, Instrument>): Card[] {
  return done.flatMap(({ instrumentId, revision, personId, day, minutes, references, doneByJob }): Card[] => {
    const instrument = known.get(instrumentId);
    if (instrument === undefined) return [];
    return [
      {
        ...faceOf(instrument),
        revision,
        personId,
        day,
        clock: null,
        minutes,
        references,
        serving: [],
        isFixed: true,
        clashes: [],
        jobId: doneByJob,
        isDone: true,
        whyNot: null,
      },
    ];
  });
}

/** @param also an instrument that comes first, because somebody asked for it */
function notPlacedCards({ notPlaced, problem }: Week, also: number | null): Card[] {
  const jobs = new Map(problem.jobs.map((job) => [Number(job.id), job]));
  const rank = ({ candidate, why }: Week['notPlaced'][number]): number =>
    candidate.instrument.id === also ? -1 : WHY_ORDER.indexOf(why.code);
  return [...notPlaced]
    .sort(
      (a, b) =>
        rank(a) - rank(b) ||
        a.candidate.instrument.dueOn.localeCompare(b.candidate.instrument.dueOn) ||
        a.candidate.instrument.tag.localeCompare(b.candidate.instrument.tag),
    )
    .map(({ candidate: { instrument, planned, openJob }, why }) => {
      const job = jobs.get(instrument.id);
      const needs = job?.needs ?? [];
      return {
        ...faceOf(instrument),
        revision: planned?.revision ?? null,
        personId: null,
        day: null,
        clock: null,
        minutes: job?.minutes ?? 60,
        references: needs.map(([best]) => best ?? ''),
        serving: needs,
        isFixed: false,
        clashes: [],
        jobId: openJob?.id ?? null,
        isDone: false,
        whyNot: whyInWords(why),
      };
    });
}

/** Each reference that is taken along, with when and where. */
function barsOf(week: Week): Bar[] {
  const minutes = new Map(week.problem.jobs.map((job) => [job.id, job.minutes]));
  const tags = new Map(
    week.candidates.map(({ instrument }) => [String(instrument.id), instrument.tag] as const),
  );
  const taken = new Set(
    week.clashes.flatMap((clash) =>
      'reference' in clash
        ? [`${clash.reference} ${clash.job}`, ...('by' in clash ? [`${clash.reference} ${clash.by}`] : [])]
        : [],
    ),
  );
  const bars = new Map<string, Use[]>();
  for (const { job, start, day, references } of week.placed)
    for (const reference of new Set(references))
      bars.set(reference, [
        ...(bars.get(reference) ?? []),
        {
          tag: tags.get(job) ?? '',
          day: week.days[day] ?? '',
          from: start,
          to: start + (minutes.get(job) ?? 0),
          isClash: taken.has(`${reference} ${job}`),
        },
      ]);
  const until = new Map(week.references.map(({ tag, dueOn }) => [tag, dueOn]));
  return [...bars]
    .sort(([a], [b]) => a.localeCompare(b))
    .map(([reference, uses]) => ({
      reference,
      until: until.get(reference) ?? null,
      uses: uses.sort((a, b) => a.day.localeCompare(b.day) || a.from - b.from),
    }));
}

/** Minutes of each day that are given away: to the return of whoever walks it. */
function usedOf({ placed, problem, days }: Week, personId: number): number[] {
  const minutes = new Map(problem.jobs.map((job) => [job.id, job.minutes]));
  return days.map((_, index) =>
    placed
      .filter(({ person, day }) => person === String(personId) && day === index)
      .reduce(
        (most, { job, start }) => Math.max(most, start + (minutes.get(job) ?? 0) + problem.walkMinutes),
        0,
      ),
  );
}

/** Those who do no jobs any more and have something in the plan all the same. */
const leftOf = ({ workers, days }: Week, cards: readonly Card[]): Week['workers'] =>
  [...new Set(cards.flatMap(({ personId }) => personId ?? []))]
    .filter((id) => !workers.some((worker) => worker.id === id))
    .map((id) => ({ id, name: 'No longer here', week: [], minutes: days.map(() => 0) }));

/**
 * The board of a plan. Days on which nobody works and nothing stands are left out.
 * @param known instruments of what is done
 * @param today ISO date
 * @param also an instrument that somebody asked for
 */
export function boardOf(
  week: Week,
  known: ReadonlyMap<number, Instrument>,
  today: string,
  also: number | null = null,
): Board {
  const cards = [...placedCards(week), ...doneCards(week, known)];
  const notPlaced = notPlacedCards(week, also);
  const shown = week.days.map(
    (day, index) =>
      week.workers.some(({ minutes }) => (minutes[index] ?? 0) > 0) || cards.some((card) => card.day === day),
  );
  const only = <Value>(all: readonly Value[]): Value[] => all.filter((_, index) => shown[index]);
  return {
    days: only(week.days).map((day) => ({ day, isPast: day < today, isToday: day === today })),
    people: [...week.workers, ...leftOf(week, cards)].map(({ id, name, minutes }) => ({
      id,
      name,
      minutes: only(minutes),
      used: only(usedOf(week, id)),
    })),
    cards,
    notPlaced: notPlaced.slice(0, MOST_NAMED),
    unnamed: Math.max(0, notPlaced.length - MOST_NAMED) + week.left,
    shutdowns: week.shutdowns,
    bars: barsOf(week),
    dayBegins: week.site.dayBegins,
    graceDays: week.site.graceDays,
  };
}

/** One day of one person: where it leads, and what is taken along. */
export interface Walk {
  readonly personId: number;
  readonly day: string;
  readonly stops: readonly { readonly area: string; readonly jobs: readonly OnTheWay[] }[];
  readonly references: readonly string[];
  readonly walkMinutes: number;
}

/** The walks of what is planned, in the order that it has. */
export function walksOf(planned: readonly OnTheWay[], walkMinutes: number): Walk[] {
  const walks = new Map<string, OnTheWay[]>();
  for (const one of planned) {
    const key = `${one.day} ${one.personId}`;
    walks.set(key, [...(walks.get(key) ?? []), one]);
  }
  return [...walks.values()].flatMap((jobs) => {
    const [first] = jobs;
    if (first === undefined) return [];
    const stops: { area: string; jobs: OnTheWay[] }[] = [];
    for (const job of jobs) {
      const last = stops.at(-1);
      if (last?.area === job.instrument.area) last.jobs.push(job);
      else stops.push({ area: job.instrument.area, jobs: [job] });
    }
    return [
      {
        personId: first.personId,
        day: first.day,
        stops,
        references: [...new Set(jobs.flatMap(({ references }) => references))].sort(),
        walkMinutes: (stops.length + 1) * walkMinutes,
      },
    ];
  });
}
