'use client';
import { lessonOf, type Done, type Score } from '@barys/rig/practice';
import { useIsMounted } from '@/ui/useIsMounted';
import { Result } from './Result';

/** An attempt that was kept, as it was scored, with its replay. */
export function KeptResult({
  lesson,
  seed,
  record,
  score,
}: {
  lesson: string;
  seed: number;
  record: readonly Done[];
  score: Score;
}) {
  const isMounted = useIsMounted();
  return (
    isMounted && <Result lesson={lessonOf(lesson)} seed={seed} record={record} score={score} onAgain={null} />
  );
}
