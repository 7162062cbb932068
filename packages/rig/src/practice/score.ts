/**
 * The score of an attempt, from the truth of the simulation: what was wrong and whether it was named, what error is left, how
 * the points were approached, what was adjusted without need. It is worked out by doing the acts again, so nobody can send a
 * score. Points and their sizes are inventions.
 */
import { isAdjusting, type Cause, type Done } from './acts';
import { replayed, type PracticeBench } from './bench';
import type { Lesson } from './lessons';

export interface Deduction {
  /** When it happened, s of the bench; the end for what is judged there. */
  readonly atS: number;
  readonly points: number;
  readonly why: string;
}

export interface Score {
  /** 100 less the deductions, never below zero. */
  readonly points: number;
  readonly deductions: readonly Deduction[];
  readonly causes: readonly Cause[];
  readonly named: readonly Cause[];
  /** True errors at the points as the instrument was left, per cent of span. */
  readonly left: readonly { readonly percent: number; readonly error: number }[];
  readonly timeS: number;
}

/** What an approach may go past a point, per cent of span, and what an output may move while it is read, per cent of the limit. */
const PAST_PERCENT = 1;
const MOVING_PERCENT_OF_LIMIT = 20;
const FREE_PASSES = 3;

class Scorer {
  readonly deductions: Deduction[] = [];
  constructor(private readonly lesson: Lesson) {}

  take(atS: number, points: number, why: string): void {
    this.deductions.push({ atS, points, why });
  }

  worst(bench: PracticeBench): number {
    return Math.max(...this.lesson.points.map((percent) => Math.abs(bench.errorAt(percent))));
  }

  get adjustLimit(): number {
    return (this.lesson.limitPercent * this.lesson.adjustAbovePercent) / 100;
  }

  /** Points that were not read in a pass, both ways. */
  missing(bench: PracticeBench, pass: 'as found' | 'as left'): number {
    return this.lesson.points.filter((percent) =>
      (['up', 'down'] as const).some(
        (way) =>
          // The top is read once, where the run turns.
          !(percent === 100 && way === 'down') &&
          !bench.taken.some((one) => one.pass === pass && one.percent === percent && one.way === way),
      ),
    ).length;
  }

  readings(bench: PracticeBench): void {
    const { range, limitPercent } = this.lesson;
    const span = Math.abs(range.urv - range.lrv);
    const moving =
      ((limitPercent / 100) * Math.abs(range.outputHigh - range.outputLow) * MOVING_PERCENT_OF_LIMIT) / 100;
    for (const { atS, percent, way, movedOutput, pastPoint } of bench.taken) {
      if (movedOutput > moving) this.take(atS, 2, `${percent} % was read while it moved`);
      // Zero is vented to, and has no side to come from.
      if (percent !== 0 && (pastPoint / span) * 100 > PAST_PERCENT)
        this.take(atS, 3, `${percent} % ${way === 'up' ? 'rising' : 'falling'} was overshot`);
    }
  }

  finish(bench: PracticeBench, record: readonly Done[], named: readonly Cause[]): void {
    const { lesson } = this;
    const end = bench.timeS;
    const worst = this.worst(bench);
    if (worst > lesson.limitPercent)
      this.take(end, 40, `what is left is outside the limit, ${worst.toFixed(2)} % of span`);
    else if (worst > this.adjustLimit)
      this.take(end, 10, `what is left is past the adjust limit, ${worst.toFixed(2)} % of span`);
    if (record.some(({ act }) => isAdjusting(act)) && this.missing(bench, 'as left') > 0)
      this.take(end, 15, 'what was adjusted was not read as left at every point');
    for (const cause of lesson.causes)
      if (!named.includes(cause)) this.take(end, 15, 'what was wrong was not named');
    for (const cause of named)
      if (!lesson.causes.includes(cause)) this.take(end, 10, 'something was named that was not wrong');
    if (bench.mostApplied > lesson.referenceLimit) this.take(end, 15, 'the reference was over-ranged');
    const settings = record.filter(({ act }) => act.do === 'turn').length;
    const passes = Math.ceil(settingsIn(record) / 2);
    if (settings > 0 && passes > FREE_PASSES)
      this.take(end, 2 * (passes - FREE_PASSES), `${passes} passes of the screws`);
    const late = Math.floor((end - lesson.minutes * 60) / 60);
    if (late > 0) this.take(end, Math.min(10, late), `${late} min longer than it takes`);
  }
}

/** How often the hand went from one screw to the other: turns of one without leaving it are one setting. */
function settingsIn(record: readonly Done[]): number {
  let settings = 0;
  let last = '';
  for (const { act } of record)
    if (act.do === 'turn' && act.screw !== last) {
      settings += 1;
      last = act.screw;
    } else if (act.do === 'read') last = '';
  return settings;
}

/** @throws CoreError where the record has an act that its bench could not do */
export function scoreOf(lesson: Lesson, seed: number, record: readonly Done[]): Score {
  const scorer = new Scorer(lesson);
  let isTold = false;
  const bench = replayed(lesson, seed, record, Infinity, (so, done) => {
    if (done.act.do === 'hint') scorer.take(done.atS, 3, 'a hint');
    if (!isAdjusting(done.act) || isTold) return;
    isTold = true;
    if (scorer.missing(so, 'as found') > 0)
      scorer.take(done.atS, 10, 'adjusted before it was read as found at every point');
    if (scorer.worst(so) <= scorer.adjustLimit) scorer.take(done.atS, 10, 'adjusted without need');
  });
  const named = record.flatMap(({ act }) => (act.do === 'name' ? [act.causes] : [])).at(-1) ?? [];
  scorer.readings(bench);
  scorer.finish(bench, record, named);
  const deductions = [...scorer.deductions].sort((a, b) => a.atS - b.atS);
  return {
    points: Math.max(0, 100 - deductions.reduce((sum, { points }) => sum + points, 0)),
    deductions,
    causes: lesson.causes,
    named,
    left: lesson.points.map((percent) => ({ percent, error: bench.errorAt(percent) })),
    timeS: bench.timeS,
  };
}
