export {
  CAUSES,
  isAdjusting,
  type Act,
  type Cause,
  type Command,
  type Done,
  type Pass,
  type Way,
} from './acts';
export { LONGEST_S, PracticeBench, replayed, type Taken } from './bench';
export { lessonOf, LESSONS, type Lesson } from './lessons';
export { scoreOf, type Deduction, type Score } from './score';
