/** A week of the plan as its page needs it. */
import { handOver } from '@barys/store/jobs';
import { dueWithin, lastMaking, loadWeek, type Making } from '@barys/store/planning';
import { SCHEDULING_ROLES } from '@barys/store/people';
import { findInstrument, instrumentsOf } from '@barys/store/registers';
import { isUnwritable, StoreError } from '@barys/store/db';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { actingPerson } from '@/server/person';
import { sundayOf, WEEK_DAYS, weekAsked } from './query';
import { boardOf, type Board } from './shape';

/** The instrument in service that has a tag, or null where none has. */
async function askedFor(tag: string | undefined): Promise<number | null> {
  if (tag === undefined) return null;
  try {
    const { id, state } = await findInstrument(database(), { tag: tag.trim().toUpperCase() });
    return state === 'in service' ? id : null;
  } catch (error) {
    // A tag that no register can hold is of none either.
    if (isUnwritable(error) || (error instanceof StoreError && error.refusal.code === 'no-such')) return null;
    throw error;
  }
}

export interface WeekPage {
  /** Monday, ISO date. */
  readonly from: string;
  readonly today: string;
  readonly board: Board;
  readonly asked: number | null;
  readonly making: Making | null;
  readonly mayChange: boolean;
  readonly walkMinutes: number;
  /** How many that come due within the week, and how many of them stand in it. */
  readonly due: number;
  readonly duePlaced: number;
  /** Jobs whose instruments stand otherwise than in service right now. */
  readonly standing: readonly { readonly id: number; readonly tag: string }[];
}

export async function loadWeekPage(from: unknown, also: string | undefined): Promise<WeekPage> {
  const db = database();
  const today = localDate(new Date());
  const monday = weekAsked(from, today);
  const asked = await askedFor(also);
  const [week, within, standing, making, person] = await Promise.all([
    loadWeek(db, monday, WEEK_DAYS, today, asked),
    dueWithin(db, monday, sundayOf(monday)),
    handOver(db),
    lastMaking(db),
    actingPerson(),
  ]);
  const done = await instrumentsOf(
    db,
    week.done.map(({ instrumentId }) => instrumentId),
  );
  return {
    from: monday,
    today,
    board: boardOf(week, new Map(done.map((one) => [one.id, one])), today, asked),
    asked,
    making,
    mayChange: person !== null && SCHEDULING_ROLES.includes(person.role),
    walkMinutes: week.site.walkMinutes,
    due: within.due,
    duePlaced: within.placed,
    standing: standing.jobs.filter((job) => job.standing.length > 0).map(({ id, tag }) => ({ id, tag })),
  };
}
