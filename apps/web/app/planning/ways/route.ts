import { loadWeek, waysOf } from '@barys/store/planning';
import { z } from 'zod';
import { clockAt } from '@/places/planning/words';
import { WEEK_DAYS, weekAsked } from '@/places/planning/query';
import type { WayOut } from '@/places/planning/ways';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

/** Where an instrument can be done in a week without breaking anything. */
export async function GET(request: Request): Promise<Response> {
  try {
    await requireReader();
    const { searchParams } = new URL(request.url);
    const id = z.coerce.number().int().positive().parse(searchParams.get('instrument'));
    const today = localDate(new Date());
    const week = await loadWeek(database(), weekAsked(searchParams.get('from'), today), WEEK_DAYS, today, id);
    const seen = new Map(week.candidates.map(({ instrument, planned }) => [instrument.id, planned]));
    const minutes = new Map(week.problem.jobs.map((job) => [job.id, job.minutes]));
    const ways = waysOf(week, id, today).map(({ person, day, moves }): WayOut => ({
      personId: Number(person),
      day: week.days[day] ?? '',
      clock: clockAt(week.site.dayBegins, moves[0]?.start ?? 0),
      moves: moves.map((move) => ({
        instrumentId: Number(move.job),
        seen: seen.get(Number(move.job))?.revision ?? null,
        personId: Number(person),
        day: week.days[day] ?? '',
        minutes: minutes.get(move.job) ?? 60,
        references: move.references,
      })),
    }));
    return Response.json({ ways });
  } catch (error) {
    return problemResponse(error);
  }
}
