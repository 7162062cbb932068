/** Which days a page of planning shows, as its address says. */
import dayjs from 'dayjs';
import { z } from 'zod';

export const WEEK_DAYS = 7;

/** Monday of a day's week. */
export const mondayOf = (day: string): string =>
  dayjs(day)
    .subtract((dayjs(day).day() + 6) % 7, 'day')
    .format('YYYY-MM-DD');

/** Monday of the week that a planner looks at on a day: at the weekend it is the week to come. */
const weekAt = (today: string): string => mondayOf(dayjs(today).add(2, 'day').format('YYYY-MM-DD'));

const YEARS = 5;

/** Days that a plan can be about: a year in a typed address may be any. */
const isNear = (day: string, today: string): boolean => Math.abs(dayjs(day).diff(today, 'year')) <= YEARS;

/** Monday of the week that is asked for, or of that of today where none is, or none that there is. */
export function weekAsked(asked: unknown, today: string): string {
  const day = z.iso.date().safeParse(asked);
  return day.success && isNear(day.data, today) ? mondayOf(day.data) : weekAt(today);
}

export const weekLater = (monday: string, weeks: number): string =>
  dayjs(monday)
    .add(weeks * WEEK_DAYS, 'day')
    .format('YYYY-MM-DD');

/** @param monday ISO date */
export const sundayOf = (monday: string): string =>
  dayjs(monday)
    .add(WEEK_DAYS - 1, 'day')
    .format('YYYY-MM-DD');
