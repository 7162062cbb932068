import { findLesson, scoreOf, type Done } from '@barys/rig/practice';
import { findAttempt } from '@barys/store/practice';
import Alert from '@mui/material/Alert';
import { notFound } from 'next/navigation';
import { KeptResult } from '@/places/practice/desk/KeptResult';
import { database } from '@/server/database';
import { showMoment } from '@/server/dates';
import { orNotFound, pageId } from '@/server/orNotFound';
import { currentActor } from '@/server/person';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'An attempt' };

export default async function AttemptPage({ params }: { params: Promise<{ id: string }> }) {
  const id = pageId((await params).id);
  const actor = await currentActor();
  const attempt = await orNotFound(() => findAttempt(database(), actor, id));
  const lesson = findLesson(attempt.lesson);
  if (lesson === undefined) notFound();
  const record = attempt.record as readonly Done[];
  const score = scoreOf(lesson, attempt.seed, record);
  return (
    <>
      <PageHead
        title={lesson.title}
        about={`${attempt.by}, ${showMoment(attempt.finishedAt)}, seed ${attempt.seed}. Nothing here is a real record.`}
      />
      {score.points !== attempt.points && (
        <Alert severity="info" variant="outlined" sx={{ mb: 1.5 }}>
          It was scored {attempt.points} of 100 when it was made. The bench has changed since, so that what is
          shown here is not all that was seen then.
        </Alert>
      )}
      <KeptResult lesson={lesson.id} seed={attempt.seed} record={record} score={score} />
    </>
  );
}
