/** What of a plan is said in words. */
import type { Clash } from '@barys/core/plan';
import type { WhyNot } from '@barys/store/planning';
import dayjs from 'dayjs';
import { STAGE_WORD } from '@/places/jobs/words';
import { showDate } from '@/server/dates';

export const dayWord = (day: string): string => dayjs(day).format('ddd D MMM');

/** Clock of a moment of a day's work, as long as it is of that day: later it says so. */
export function clockAt(dayBegins: string, minutes: number): string {
  const [hour = 0, minute = 0] = dayBegins.split(':').map(Number);
  const at = hour * 60 + minute + minutes;
  const clock = `${String(Math.floor(at / 60) % 24).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;
  return at < 1440 ? clock : `${clock} of the next day`;
}

export const hoursWord = (minutes: number): string =>
  `${Number((minutes / 60).toFixed(1)).toLocaleString('en')} h`;

/** What the words of a clash need to know. */
export interface Names {
  readonly days: readonly string[];
  readonly clock: (minutes: number) => string;
  readonly tag: (job: string) => string;
  readonly area: (job: string) => string;
  /** Who has a job. */
  readonly with: (job: string) => string;
  readonly startOf: (job: string) => number;
  readonly person: (id: string) => string;
  /** Whether somebody is at work on a day, counted from the first. */
  readonly isAtWork: (person: string, day: number) => boolean;
  readonly dayOf: (job: string) => number;
  /** Last day, counted from the first, on which a reference is in date; negative where it is away. */
  readonly lastDay: (reference: string) => number;
}

/** A clash as it is said at the job that it names. */
export function clashInWords(clash: Clash, names: Names): string {
  const day = names.days[names.dayOf(clash.job)];
  const onDay = day === undefined ? '' : ` on ${dayWord(day)}`;
  switch (clash.kind) {
    case 'unknown':
      return clash.what === 'person'
        ? 'It is given to somebody who does no jobs here any more.'
        : `Its ${clash.what} is not known.`;
    case 'twice':
      return 'It is planned twice.';
    case 'not-by':
      return `It is fixed to ${names.person(clash.person)}.`;
    case 'not-then':
      return `It can be isolated only in a shutdown, and ${names.area(clash.job)} has none${onDay}.`;
    case 'overlap':
      return `It begins ${clash.minutes} min before the way to it is walked.`;
    case 'overtime':
      return names.isAtWork(clash.person, names.dayOf(clash.job))
        ? `The day of ${names.person(clash.person)} ends ${clash.minutes} min too late with it.`
        : `${names.person(clash.person)} is not at work${onDay}.`;
    case 'needs':
      return 'It has no reference for all that it needs.';
    case 'unfit':
      return `${clash.reference} does not serve here.`;
    case 'out-of-date': {
      const last = names.lastDay(clash.reference);
      return last < 0
        ? `${clash.reference} is away, held or out of date.`
        : `${clash.reference} is in date until ${dayWord(dayjs(names.days[0]).add(last, 'day').format('YYYY-MM-DD'))} only.`;
    }
    case 'in-use':
      return `${clash.reference} is at ${names.tag(clash.by)} with ${names.with(clash.by)} until ${names.clock(clash.until)}.`;
    case 'split':
      return `It is isolated with others (${clash.group}), which stand elsewhere.`;
  }
}

/** The same at the job that has what another one wants, or null where the clash is of one job. */
export const clashAtOther = (
  clash: Clash,
  names: Names,
): { readonly job: string; readonly words: string } | null =>
  clash.kind === 'in-use'
    ? {
        job: clash.by,
        words: `${clash.reference} is wanted at ${names.tag(clash.job)} with ${names.with(clash.job)} from ${names.clock(names.startOf(clash.job))}.`,
      }
    : null;

/** Why an instrument is not in the plan. */
export function whyInWords(why: WhyNot): string {
  switch (why.code) {
    case 'not-done':
      return `was planned for ${dayWord(why.day)} and is not done`;
    case 'in-hand':
      return why.stage === 'review'
        ? `job ${why.jobId} waits for its review`
        : `job ${why.jobId} is at ${STAGE_WORD[why.stage]}`;
    case 'no-shutdown':
      return 'waits for a shutdown';
    case 'no-reference':
      return 'no reference serves it in time';
    case 'due-later':
      return 'is due later';
    case 'no-room':
      return 'has no place yet';
  }
}

/** How a due date stands to a day: late beyond grace, in grace, or not yet. */
export function dueState(dueOn: string, day: string, graceDays: number): 'late' | 'in grace' | 'in time' {
  if (day <= dueOn) return 'in time';
  return dayjs(day).diff(dueOn, 'day') <= graceDays ? 'in grace' : 'late';
}

export const dueWords = (dueOn: string, day: string, graceDays: number): string => {
  const state = dueState(dueOn, day, graceDays);
  if (state === 'in grace')
    return `due ${showDate(dueOn)}, in grace until ${showDate(dayjs(dueOn).add(graceDays, 'day').format('YYYY-MM-DD'))}`;
  return state === 'late' ? `due ${showDate(dueOn)}, late by then` : `due ${showDate(dueOn)}`;
};
