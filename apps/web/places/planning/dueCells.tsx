import type { DueOn } from '@barys/store/planning';
import Link from 'next/link';
import { mondayOf } from '@/places/planning/query';
import { dayWord, dueState } from '@/places/planning/words';
import { dueInWords } from '@/server/dates';

/** What is made of an instrument that comes due. */
export function inHand({ plannedFor, plannedWith, jobId, tag, dueOn: due }: DueOn) {
  const from = mondayOf(plannedFor ?? due);
  return (
    <>
      {jobId !== null && (
        <Link prefetch={false} href={`/jobs/${jobId}`}>
          job {jobId} is open
        </Link>
      )}
      {jobId !== null && plannedFor !== null && ', '}
      {plannedFor !== null && (
        <Link prefetch={false} href={`/planning?${new URLSearchParams({ from, also: tag })}`}>
          {dayWord(plannedFor)}, {plannedWith}
        </Link>
      )}
      {jobId === null && plannedFor === null && '—'}
    </>
  );
}

/** How a due date stands to today, in words. */
export function dueCell(due: string, today: string, graceDays: number): string {
  const words = dueInWords(due, today);
  return dueState(due, today, graceDays) === 'in grace' ? `${words}, in grace` : words;
}
