/** A month as a calendar has it: whole weeks from Monday to Sunday. */
import dayjs from 'dayjs';

/** The month that is asked for (`2026-05`), or that of today. */
export function monthAsked(asked: unknown, today: string): string {
  const isMonth = typeof asked === 'string' && /^20\d\d-(0[1-9]|1[0-2])$/.test(asked);
  return isMonth ? asked : today.slice(0, 7);
}

export const monthLater = (month: string, months: number): string =>
  dayjs(`${month}-01`).add(months, 'month').format('YYYY-MM');

/** ISO dates of the weeks that a month touches, a row each. */
export function weeksOf(month: string): string[][] {
  const first = dayjs(`${month}-01`);
  const monday = first.subtract((first.day() + 6) % 7, 'day');
  const weeks = Math.ceil((first.diff(monday, 'day') + first.daysInMonth()) / 7);
  return Array.from({ length: weeks }, (_, week) =>
    Array.from({ length: 7 }, (__, day) => monday.add(week * 7 + day, 'day').format('YYYY-MM-DD')),
  );
}
