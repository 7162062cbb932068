import { findLesson, LESSONS } from '@barys/rig/practice';
import { notFound } from 'next/navigation';
import { PracticeDesk } from '@/places/practice/desk/PracticeDesk';
import { PageHead } from '@/ui/PageHead';

interface Props {
  params: Promise<{ lesson: string }>;
  searchParams: Promise<{ seed?: string }>;
}

const lessonIn = async (params: Props['params']) => {
  const id = decodeURIComponent((await params).lesson);
  return findLesson(id);
};

export async function generateMetadata({ params }: Props) {
  return { title: (await lessonIn(params))?.title ?? 'Practice' };
}

/** Everybody begins with the same; who practises again gets another. */
const FIRST_SEED = 4711;

export default async function LessonPage({ params, searchParams }: Props) {
  const lesson = await lessonIn(params);
  if (lesson === undefined) notFound();
  const asked = Number((await searchParams).seed);
  const seed = Number.isInteger(asked) && asked >= 1 && asked <= 1_000_000 ? asked : FIRST_SEED;
  const place = LESSONS.indexOf(lesson) + 1;
  return (
    <>
      <PageHead
        title={lesson.title}
        about={`${place === 0 ? 'Free bench' : `Lesson ${place} of ${LESSONS.length}`}, seed ${seed}. Nothing here is a real record.`}
      />
      <PracticeDesk lesson={lesson.id} seed={seed} />
    </>
  );
}
