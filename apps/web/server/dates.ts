/** Dates and times as the site has them, wherever the server stands, and as pages show them. */
import dayjs, { type Dayjs } from 'dayjs';
import timezone from 'dayjs/plugin/timezone';
import utc from 'dayjs/plugin/utc';

dayjs.extend(utc);
dayjs.extend(timezone);

// Kept on the global object: the server's start and its pages are bundled apart.
const kept = globalThis as typeof globalThis & { barysZone?: string };

/** Says in which zone the site is, by its IANA name; until then days are those of the machine. */
export function setZone(zone: string): void {
  kept.barysZone = zone;
}

/** Clocks are set at full quarters of an hour. */
const QUARTER_MS = 15 * 60_000;
const MOST_KNOWN = 5000;
/** What the clock at the site is ahead of UTC, minutes, by zone and quarter: to find it out takes a good half millisecond. */
const offsets = new Map<string, number>();

function offsetAt(at: Date, zone: string): number {
  const quarter = `${zone} ${Math.floor(at.getTime() / QUARTER_MS)}`;
  const known = offsets.get(quarter);
  if (known !== undefined) return known;
  const offset = dayjs(at).tz(zone).utcOffset();
  if (offsets.size >= MOST_KNOWN) offsets.clear();
  offsets.set(quarter, offset);
  return offset;
}

const offsetHere = (at: Date): number =>
  kept.barysZone === undefined ? -at.getTimezoneOffset() : offsetAt(at, kept.barysZone);

const atSite = (at: Date): Dayjs => dayjs(at).utcOffset(offsetHere(at));
/** As ISO 8601 has it, but for the offset: every entry asks for its day and its clock. */
const isoAtSite = (at: Date): string => new Date(at.getTime() + offsetHere(at) * 60_000).toISOString();

/**
 * A moment of a day where the site is.
 * @param day ISO date
 * @param clock `07:00`
 */
export const momentAt = (day: string, clock: string): Date =>
  (kept.barysZone === undefined
    ? dayjs(`${day} ${clock}`)
    : dayjs.tz(`${day} ${clock}`, kept.barysZone)
  ).toDate();

/** ISO date where the site is. */
export const localDate = (at: Date): string => isoAtSite(at).slice(0, 10);
/** @param date a moment, or a day as ISO date, which is the same everywhere */
export const showDate = (date: Date | string): string =>
  (typeof date === 'string' ? dayjs(date) : atSite(date)).format('D MMM YYYY');
export const showMoment = (at: Date): string => atSite(at).format('D MMM YYYY, HH:mm');
export const showClock = (at: Date): string => isoAtSite(at).slice(11, 19);

/** How a due date stands to today, in words. */
export function dueInWords(dueOn: string, today: string): string {
  const days = dayjs(dueOn).diff(dayjs(today), 'day');
  if (days === 0) return 'today';
  const size = Math.abs(days) === 1 ? '1 day' : `${Math.abs(days)} days`;
  return days < 0 ? `${size} overdue` : `in ${size}`;
}
