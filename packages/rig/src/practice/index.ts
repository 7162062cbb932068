export {
  CAUSES,
  isAdjusting,
  LEADS,
  type Act,
  type Cause,
  type Command,
  type Done,
  type Face,
  type Jack,
  type Lead,
  type Pass,
  type Way,
  type Wrote,
} from './acts';
export { LONGEST_S, PracticeBench, replayed, type Taken } from './bench';
export { findLesson, lessonOf, LESSONS } from './lessons';
export { FREE_KINDS, freeId, HIDDEN } from './lessons/free';
export type { Lesson } from './lessons/lesson';
export { menuLines, type MenuLine } from './menu';
export { scoreOf, type Deduction, type Score } from './score';
