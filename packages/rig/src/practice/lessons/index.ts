/** All lessons from easy to hard, and the free bench. */
import { FIRST } from './first';
import { freeLesson } from './free';
import { FURTHER } from './further';
import type { Lesson } from './lesson';

const ORDER = [
  'five-point check',
  'zero and span',
  'null meter',
  '10 to 50 mA',
  'pneumatic balance',
  'digital gauge',
  're-range or trim',
  'sensor or output',
  'position zero',
  'set-up rehearsal',
  'other density',
  'root twice',
  'receiver',
  'wet leg',
  'body exchange',
  'vacuum gauge',
];

export const LESSONS: readonly Lesson[] = [...FIRST, ...FURTHER].sort(
  (a, b) => ORDER.indexOf(a.id) - ORDER.indexOf(b.id),
);

/** A lesson by its id, also one of the free bench; undefined where there is none. */
export const findLesson = (id: string): Lesson | undefined =>
  LESSONS.find((one) => one.id === id) ?? freeLesson(id);

/** @throws Error for an id that no lesson has */
export function lessonOf(id: string): Lesson {
  const lesson = findLesson(id);
  if (lesson === undefined) throw new Error(`There is no lesson ${id}.`);
  return lesson;
}

/** What is wrong at a bench, and whether it can be put right there. */
export const wrongAt = (lesson: Lesson, seed: number): Pick<Lesson, 'causes' | 'isCurable'> =>
  lesson.hidden?.(seed) ?? lesson;
