import { StoreError } from '@barys/store/db';
import { findSite, personOfToken } from '@barys/store/people';
import { dueBy, referencesDueBy } from '@barys/store/registers';
import dayjs from 'dayjs';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

const MONTHS_AHEAD = 12;
const MOST = 5000;
const DAY_MS = 24 * 60 * 60 * 1000;

/** What comes due in the next year, as a calendar; a calendar program subscribes with `?token=` of a reading token. */
export async function GET(request: Request): Promise<Response> {
  try {
    const url = new URL(request.url);
    const token = url.searchParams.get('token');
    const now = new Date();
    const db = database();
    if (token === null) await requireReader();
    else if ((await personOfToken(db, token, 'read', now)) === null)
      throw new StoreError({ code: 'unknown-person' });
    const until = localDate(dayjs(now).add(MONTHS_AHEAD, 'month').toDate());
    const [site, instruments, references] = await Promise.all([
      findSite(db),
      dueBy(db, until, MOST),
      referencesDueBy(db, until),
    ]);
    const origin = `${url.protocol}//${request.headers.get('host') ?? url.host}`;
    const calendar = ical({
      name: `Barys, ${site?.siteName ?? 'calibration'}`,
      method: ICalCalendarMethod.PUBLISH,
    });
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
    return new Response(calendar.toString(), {
      headers: {
        'content-type': 'text/calendar; charset=utf-8',
        'content-disposition': 'attachment; filename="barys.ics"',
        'cache-control': 'private, no-store',
      },
    });
  } catch (error) {
    return problemResponse(error);
  }
}
