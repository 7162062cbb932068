/** Which days a page of planning shows, as its address says. */
import dayjs from 'dayjs';
import { z } from 'zod';

export const WEEK_DAYS = 7;

/** Monday of a day's week; of a day of the weekend, that of the week to come. */
export function weekOf(day: string): string {
  const at = dayjs(day);
  const sinceMonday = (at.day() + 6) % 7;
  return at.add(sinceMonday >= 5 ? 7 - sinceMonday : -sinceMonday, 'day').format('YYYY-MM-DD');
}

const YEARS = 5;

/** Days that a plan can be about: a year in a typed address may be any. */
const isNear = (day: string, today: string): boolean => Math.abs(dayjs(day).diff(today, 'year')) <= YEARS;

/** The Monday that is asked for, or that of today where none is, or none that there is. */
export function weekAsked(asked: unknown, today: string): string {
  const day = z.iso.date().safeParse(asked);
  return weekOf(day.success && isNear(day.data, today) ? day.data : today);
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
