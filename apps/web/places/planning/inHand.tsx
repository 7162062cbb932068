import type { DueOn } from '@barys/store/planning';
import Link from 'next/link';
import { mondayOf } from '@/places/planning/query';
import { dayWord } from '@/places/planning/words';

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
