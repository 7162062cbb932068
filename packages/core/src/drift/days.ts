/** Dates as whole days, without a clock or a time zone. */
import { CoreError } from '../errors';

const DAY_MS = 86_400_000;
const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;

/** The mean length of a year of the Gregorian calendar with a leap day every four years, days. */
export const YEAR_DAYS = 365.25;
export const MONTH_DAYS = YEAR_DAYS / 12;

/**
 * The number of a day: whole days since 1 January 1970.
 * @param date ISO date
 * @throws CoreError `missing` for what is no date
 * @example dayNumber('1970-01-03') // 2
 */
export function dayNumber(date: string): number {
  const ms = ISO_DAY.test(date) ? Date.parse(`${date}T00:00:00Z`) : NaN;
  if (Number.isNaN(ms) || new Date(ms).toISOString().slice(0, 10) !== date)
    throw new CoreError({ code: 'missing', name: 'A date', why: `"${date}" is none; write 2026-05-31` });
  return ms / DAY_MS;
}

/**
 * The ISO date of a day; of a part of a day, the day it lies in.
 * @example dateOfDay(2.9) // '1970-01-03'
 */
export const dateOfDay = (day: number): string =>
  new Date(Math.floor(day) * DAY_MS).toISOString().slice(0, 10);
