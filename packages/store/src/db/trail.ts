/** The trail as people read it: filtered, paged, and and the seal of each entry. */
import { z } from 'zod';
import type { Queryable } from './database';
import { distinctValues } from './distinct';

const date = z.union([z.literal(''), z.iso.date()]).catch('');

export const trailQuerySchema = z.object({
  person: z.coerce.number().int().min(0).catch(0),
  kind: z.string().max(30).catch(''),
  /** Tag of an instrument or reference, or the number of anything. */
  object: z.string().trim().max(60).catch(''),
  act: z.string().max(40).catch(''),
  from: date,
  to: date,
  /** Entries before this one: the next page begins there. */
  before: z.coerce.number().int().min(0).catch(0),
});
export type TrailQuery = z.infer<typeof trailQuerySchema>;

export interface TrailEntry {
  readonly id: number;
  readonly at: Date;
  /** Null where a stranger tried to sign in. */
  readonly person: string | null;
  readonly act: string;
  readonly subjectKind: string;
  readonly subjectId: number;
  /** Tag, model or name of what it was done to, where it has one. */
  readonly subject: string | null;
  readonly detail: Record<string, unknown>;
  /** The number of the seal that covers it; null while it waits for one. */
  readonly seal: number | null;
}

/** Days are those of the site. */
const ZONE = `coalesce((select time_zone from installation), 'UTC')`;

/** Entries of the trail, the newest first. */
export function trailEntries(db: Queryable, query: TrailQuery, limit: number): Promise<TrailEntry[]> {
  const conditions: string[] = [];
  const values: unknown[] = [];
  const add = (condition: (place: string) => string, value: unknown) => {
    values.push(value);
    conditions.push(condition(`$${values.length}`));
  };
  if (query.person > 0) add((place) => `person_id = ${place}`, query.person);
  if (query.kind !== '') add((place) => `subject_kind = ${place}`, query.kind);
  if (query.act !== '') add((place) => `act = ${place}`, query.act);
  if (query.from !== '') add((place) => `at >= ${place}::timestamp at time zone ${ZONE}`, query.from);
  if (query.to !== '') add((place) => `at < (${place}::date + 1)::timestamp at time zone ${ZONE}`, query.to);
  if (query.before > 0) add((place) => `entry.id < ${place}`, query.before);
  if (query.object !== '')
    if (/^\d{1,15}$/.test(query.object)) add((place) => `subject_id = ${place}`, Number(query.object));
    else
      add(
        (
          place,
        ) => `(subject_kind = 'instrument' and subject_id in (select id from instrument where tag = upper(${place}))
          or subject_kind = 'job' and subject_id in (select job.id from job join instrument on instrument.id = instrument_id
               where tag = upper(${place}))
          or subject_kind = 'reference' and subject_id in (select id from reference_standard where tag = upper(${place})))`,
        query.object,
      );
  values.push(limit);
  return db.query<TrailEntry>(
    `select entry.id, at, name_at(person_id, at) as person, act, subject_kind as "subjectKind", subject_id as "subjectId", detail,
       (select number from seal where entries @> entry.id) as seal,
       case subject_kind
         when 'instrument' then (select tag from instrument where id = subject_id)
         when 'job' then (select tag from job join instrument on instrument.id = instrument_id where job.id = subject_id)
         when 'reference' then (select tag from reference_standard where id = subject_id)
         when 'body' then (select model from body where id = subject_id)
         when 'procedure' then (select name from procedure where id = subject_id)
         when 'liquid' then (select name from liquid where id = subject_id)
         when 'person' then (select name from person named where named.id = subject_id)
       end as subject
     from audit_entry entry
     ${conditions.length === 0 ? '' : `where ${conditions.join(' and ')}`}
     order by entry.id desc limit $${values.length}`,
    values,
  );
}

/** Acts and kinds of things that the trail knows, for choosing among them. */
export async function trailFacets(
  db: Queryable,
): Promise<{ readonly acts: readonly string[]; readonly kinds: readonly string[] }> {
  const [acts, kinds] = await Promise.all([
    distinctValues(db, 'audit_entry.act'),
    distinctValues(db, 'audit_entry.subject_kind'),
  ]);
  return { acts, kinds };
}
