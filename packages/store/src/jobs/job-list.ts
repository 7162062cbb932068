/** The list of jobs: found, filtered, ordered and paged in the database, for half a million of them. */
import { z } from 'zod';
import type { Queryable } from '../db/database';
import { escapeLike, PAGE_SIZES } from '../registers/instrument-list';
import { JOB_SQL, type JobLine } from './file';
import { JOB_REASONS, STAGES } from './stages';

/** Where jobs stand, as a list is asked for them. */
export const JOB_PLACES = ['open', 'to review', 'signed', 'cancelled', ...STAGES] as const;
const VERDICTS = ['within', 'within-adjust', 'undecided', 'not-judged', 'outside'] as const;

const ORDER = {
  id: 'job.id',
  tag: `job.instrument_copy ->> 'tag'`,
  openedAt: 'opened_at',
  signedAt: 'signed_at',
} as const;
export type JobOrder = keyof typeof ORDER;

/** What a list shows, as an address says it; anything else falls back to the whole list, the newest first. */
export const jobQuerySchema = z.object({
  /** Words that all have to occur in tag or service, or the number of a job. */
  q: z.string().max(100).catch(''),
  where: z.enum(['', ...JOB_PLACES]).catch(''),
  reason: z.enum(['', ...JOB_REASONS]).catch(''),
  found: z.enum(['', ...VERDICTS]).catch(''),
  /** Who opened or signed it, by name. */
  who: z.string().max(60).catch(''),
  /** Signed from this day on, and up to that one; ISO dates. */
  from: z.union([z.literal(''), z.iso.date()]).catch(''),
  to: z.union([z.literal(''), z.iso.date()]).catch(''),
  sort: z.enum(Object.keys(ORDER) as [JobOrder, ...JobOrder[]]).catch('id'),
  dir: z.enum(['asc', 'desc']).catch('desc'),
  page: z.coerce.number().int().min(0).max(100_000).catch(0),
  size: z.coerce
    .number()
    .refine((size) => PAGE_SIZES.some((one) => one === size))
    .catch(PAGE_SIZES[0]),
});
export type JobQuery = z.infer<typeof jobQuerySchema>;

const PLACE_SQL: Readonly<Record<string, string>> = {
  open: 'signed_at is null and cancelled_at is null',
  'to review': `stage = 'review'`,
  signed: 'signed_at is not null',
  cancelled: 'cancelled_at is not null',
};

function conditionsOf(query: JobQuery): { where: string; values: unknown[] } {
  const conditions: string[] = [];
  const values: unknown[] = [];
  const add = (condition: (place: string) => string, value: unknown) => {
    values.push(value);
    conditions.push(condition(`$${values.length}`));
  };
  for (const word of query.q.toLowerCase().split(/\s+/).filter(Boolean)) {
    values.push(`%${escapeLike(word)}%`);
    const isNamed = `lower((instrument_copy ->> 'tag') || ' ' || (instrument_copy ->> 'service')) like $${values.length}`;
    // The number of a job, as its own kind, so that both are found by their indexes.
    if (/^[1-9]\d{3,14}$/.test(word)) add((place) => `(job.id = ${place} or ${isNamed})`, Number(word));
    else conditions.push(isNamed);
  }
  const standing = PLACE_SQL[query.where];
  if (standing !== undefined) conditions.push(standing);
  else if (query.where !== '')
    add((place) => `stage = ${place} and signed_at is null and cancelled_at is null`, query.where);
  if (query.reason !== '') add((place) => `reason = ${place}`, query.reason);
  if (query.found !== '') add((place) => `as_found_verdict = ${place}`, query.found);
  if (query.who !== '')
    add(
      (place) => `(signed_by = any(array(select id from person where name = ${place}))
        or opened_by = any(array(select id from person where name = ${place})))`,
      query.who,
    );
  // Days of the site, as dates of work are.
  const zone = `coalesce((select time_zone from installation), 'UTC')`;
  if (query.from !== '')
    add((place) => `signed_at >= ${place}::date::timestamp at time zone ${zone}`, query.from);
  if (query.to !== '')
    add((place) => `signed_at < (${place}::date + 1)::timestamp at time zone ${zone}`, query.to);
  return { where: conditions.length === 0 ? '' : `where ${conditions.join(' and ')}`, values };
}

export interface JobPage {
  readonly lines: readonly JobLine[];
  /** How many the search and the filters leave. */
  readonly total: number;
}

/** One page of the list. */
export async function listJobs(db: Queryable, query: JobQuery): Promise<JobPage> {
  const { where, values } = conditionsOf(query);
  const order = `${ORDER[query.sort]} ${query.dir} nulls last, job.id ${query.dir}`;
  const [lines, [counted]] = await Promise.all([
    db.query<JobLine>(
      `with page as (select job.id from job ${where} order by ${order} limit $${values.length + 1} offset $${values.length + 2})
       ${JOB_SQL} join page on page.id = job.id order by ${order}`,
      [...values, query.size, query.page * query.size],
    ),
    db.query<{ total: number }>(`select count(*)::int as total from job ${where}`, values),
  ]);
  return { lines, total: counted?.total ?? 0 };
}
