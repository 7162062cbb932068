/** Dates as the server's place has them and as pages show them. */
import dayjs from 'dayjs';

/** ISO date where the server stands. */
export const localDate = (at: Date): string => dayjs(at).format('YYYY-MM-DD');
export const showDate = (date: Date | string): string => dayjs(date).format('D MMM YYYY');
export const showMoment = (at: Date): string => dayjs(at).format('D MMM YYYY, HH:mm');
export const showClock = (at: Date): string => dayjs(at).format('HH:mm:ss');

/** How a due date stands to today, in words. */
export function dueInWords(dueOn: string, today: string): string {
  const days = dayjs(dueOn).diff(dayjs(today), 'day');
  if (days === 0) return 'today';
  const size = Math.abs(days) === 1 ? '1 day' : `${Math.abs(days)} days`;
  return days < 0 ? `${size} overdue` : `in ${size}`;
}
