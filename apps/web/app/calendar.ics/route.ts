import { StoreError } from '@barys/store/db';
import { findSite, personOfToken } from '@barys/store/people';
import { dueBy, referencesDueBy } from '@barys/store/registers';
import dayjs from 'dayjs';
import ical, { type ICalCalendar, ICalCalendarMethod } from 'ical-generator';
import { z } from 'zod';
import { addPlan } from '@/places/planning/calendar';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

const MONTHS_AHEAD = 12;
const MOST = 5000;
const DAY_MS = 24 * 60 * 60 * 1000;

interface Asked {
  readonly origin: string;
  readonly now: Date;
}

/** What comes due in the next year, a whole day each. */
async function addDue(calendar: ICalCalendar, { origin, now }: Asked): Promise<void> {
  const db = database();
  const until = localDate(dayjs(now).add(MONTHS_AHEAD, 'month').toDate());
  const [instruments, references] = await Promise.all([dueBy(db, until, MOST), referencesDueBy(db, until)]);
  const add = (kind: string, tag: string, words: string, dueOn: string, path: string) =>
    calendar.createEvent({
      id: `${kind}-${tag}@barys`,
      // A whole day is written as the calendar has it in UTC, wherever the server stands.
      start: new Date(dueOn),
      end: new Date(new Date(dueOn).getTime() + DAY_MS),
      allDay: true,
      stamp: now,
      summary: words,
      url: `${origin}${path}/${encodeURIComponent(tag)}`,
    });
  for (const { tag, service, dueOn } of instruments)
    add('instrument', tag, `Calibrate ${tag}, ${service}`, dueOn, '/instruments');
  for (const { tag, description, dueOn } of references)
    add('reference', tag, `Reference ${tag} runs out, ${description}`, dueOn, '/references');
}

/** Whose plan is asked for: `all`, or the number of a person. */
const WHOSE = 'The plan is that of "all", or of the number of a person.';
const whoseSchema = z.union(
  [z.literal('all').transform(() => null), z.coerce.number().int().positive()],
  WHOSE,
);

/**
 * What comes due in the next year, or with `?plan=` what is planned, as a calendar; a calendar program subscribes with `?token=` of a
 * reading token.
 */
export async function GET(request: Request): Promise<Response> {
  try {
    const url = new URL(request.url);
    const token = url.searchParams.get('token');
    const plan = url.searchParams.get('plan');
    const now = new Date();
    const db = database();
    if (token === null) await requireReader();
    else if ((await personOfToken(db, token, 'read', now)) === null)
      throw new StoreError({ code: 'unknown-person' });
    const site = await findSite(db);
    const calendar = ical({
      name: `Barys, ${site?.siteName ?? 'calibration'}${plan === null ? '' : ', plan'}`,
      method: ICalCalendarMethod.PUBLISH,
    });
    const origin = `${url.protocol}//${request.headers.get('host') ?? url.host}`;
    if (plan === null) await addDue(calendar, { origin, now });
    else
      await addPlan(calendar, db, {
        personId: whoseSchema.parse(plan),
        today: localDate(now),
        origin,
        now,
      });
    return new Response(calendar.toString(), {
      headers: {
        'content-type': 'text/calendar; charset=utf-8',
        'content-disposition': `attachment; filename="${plan === null ? 'barys' : 'barys-plan'}.ics"`,
        'cache-control': 'private, no-store',
      },
    });
  } catch (error) {
    return problemResponse(error);
  }
}
