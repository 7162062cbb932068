/** A plan as a calendar program reads it. */
import { plannedWalks, planSite } from '@barys/store/planning';
import type { Queryable } from '@barys/store/db';
import { listPeople } from '@barys/store/people';
import dayjs from 'dayjs';
import type { ICalCalendar } from 'ical-generator';
import { momentAt } from '@/server/dates';

/** Days that a calendar looks back and ahead. */
const [BACK_DAYS, AHEAD_DAYS] = [14, 90];

/**
 * Adds what is planned to a calendar, each at its time in the walk.
 * @param personId whose; null adds everybody's
 * @param origin address of the application
 */
export async function addPlan(
  calendar: ICalCalendar,
  db: Queryable,
  { personId, today, origin, now }: { personId: number | null; today: string; origin: string; now: Date },
): Promise<void> {
  const at = (days: number): string => dayjs(today).add(days, 'day').format('YYYY-MM-DD');
  const [planned, site, people] = await Promise.all([
    plannedWalks(db, at(-BACK_DAYS), at(AHEAD_DAYS), personId),
    planSite(db),
    listPeople(db),
  ]);
  const nameOf = new Map(people.map(({ id, name }) => [id, name]));
  for (const { instrument, personId: who, day, start, minutes, references } of planned) {
    const begins = dayjs(momentAt(day, site.dayBegins)).add(start, 'minute');
    calendar.createEvent({
      // The same event wherever it is moved to.
      id: `plan-${instrument.tag}@barys`,
      start: begins.toDate(),
      end: begins.add(minutes, 'minute').toDate(),
      stamp: now,
      summary: `${instrument.tag}, ${instrument.service}`,
      location: instrument.area,
      description: [
        nameOf.get(who) ?? '',
        references.length === 0 ? '' : `Take ${references.join(', ')}.`,
        instrument.hazards.length === 0 ? '' : `Hazards: ${instrument.hazards.join(', ')}.`,
      ]
        .filter((line) => line !== '')
        .join('\n'),
      url: `${origin}/instruments/${encodeURIComponent(instrument.tag)}`,
    });
  }
}
