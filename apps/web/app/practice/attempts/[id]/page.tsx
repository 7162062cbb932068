import { lessonOf, LESSONS, scoreOf, type Done } from '@barys/rig/practice';
import { findAttempt } from '@barys/store/practice';
import { notFound } from 'next/navigation';
import { KeptResult } from '@/places/practice/desk/KeptResult';
import { database } from '@/server/database';
import { showMoment } from '@/server/dates';
import { currentActor } from '@/server/person';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'An attempt' };

export default async function AttemptPage({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isSafeInteger(id) || id < 1) notFound();
  const attempt = await findAttempt(database(), await currentActor(), id);
  if (!LESSONS.some((one) => one.id === attempt.lesson)) notFound();
  const lesson = lessonOf(attempt.lesson);
  const record = attempt.record as readonly Done[];
  return (
    <>
      <PageHead
        title={lesson.title}
        about={`${attempt.by}, ${showMoment(attempt.finishedAt)}, seed ${attempt.seed}. Nothing here is a real record.`}
      />
      <KeptResult
        lesson={lesson.id}
        seed={attempt.seed}
        record={record}
        score={scoreOf(lesson, attempt.seed, record)}
      />
    </>
  );
}
