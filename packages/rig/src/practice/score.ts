/**
 * The score of an attempt, from the truth of the simulation: what was wrong and whether it was named, what error is left, how
 * the points were approached and read, what was unsafe, what was adjusted without need. It is worked out by doing the acts
 * again, so nobody can send a score. Points and their sizes are inventions.
 */
import { compareSetups, type SetupComparison } from '@barys/core/setup';
import { expectedOutput } from '@barys/core/signal';
import { isAdjusting, type Cause, type Done, type Pass } from './acts';
import { replayed, type PracticeBench, type Taken } from './bench';
import { wrongAt } from './lessons';
import type { Lesson } from './lessons/lesson';

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
  /** True errors at the points as the instrument was left, per cent of span or of the reading. */
  readonly left: readonly { readonly percent: number; readonly error: number }[];
  /** What was set against the data sheet; null where there is none. */
  readonly setup: SetupComparison | null;
  readonly timeS: number;
}

/** What an approach may go past a point, per cent of span or of a point over decades. */
const PAST_PERCENT = { span: 1, reading: 15 } as const;
/** How near to its point a reading is taken, in the same. */
const NEAR_PERCENT = { span: 3, reading: 60 } as const;
/** What an output may move while it is read, and what an eye may be off by, per cent of the limit. */
const MOVING_PERCENT_OF_LIMIT = 20;
const EYE_PERCENT_OF_LIMIT = 25;
/** Farthest that what was written for the pressure may be from it, per cent of span or of the pressure. */
const APPLIED_PERCENT = { span: 0.5, reading: 8 } as const;
const FREE_PASSES = 3;
/** What of an output a rounded range value is worth, per cent of span. */
const ROUNDING_PERCENT = 0.1;

class Scorer {
  readonly deductions: Deduction[] = [];
  readonly causes: readonly Cause[];
  private readonly isCurable: boolean;
  constructor(
    private readonly lesson: Lesson,
    seed: number,
  ) {
    const { causes, isCurable } = wrongAt(lesson, seed);
    this.causes = causes;
    this.isCurable = isCurable;
  }

  take(atS: number, points: number, why: string): void {
    this.deductions.push({ atS, points, why });
  }

  worst(bench: PracticeBench): number {
    // A curve that says nothing any more is as wrong as can be.
    const errors = this.lesson.points.map((percent) => Math.abs(bench.errorAt(percent)));
    return errors.every(Number.isFinite) ? Math.max(...errors) : Infinity;
  }

  get adjustLimit(): number {
    return (this.lesson.limitPercent * this.lesson.adjustAbovePercent) / 100;
  }

  private pointOf(percent: number): number {
    const { lrv, urv } = this.lesson.range;
    return lrv + ((urv - lrv) * percent) / 100;
  }
  /** A part of the span, or of a point over decades, in the unit of the input. */
  private share(percents: { readonly span: number; readonly reading: number }, percent: number): number {
    const { limitOf, range } = this.lesson;
    const whole = limitOf === 'span' ? range.urv - range.lrv : this.pointOf(percent);
    return Math.abs((percents[limitOf] / 100) * whole);
  }
  /** The limit at a point, in the unit of the output. */
  private limitAt(percent: number): number {
    const { limitOf, limitPercent, range } = this.lesson;
    const whole =
      limitOf === 'span' ? range.outputHigh - range.outputLow : expectedOutput(range, this.pointOf(percent));
    return Math.abs((limitPercent / 100) * whole);
  }

  private isNear({ stood, percent }: Taken): boolean {
    return Math.abs(stood - this.pointOf(percent)) <= this.share(NEAR_PERCENT, percent);
  }

  /** Points that were not read in a pass, both ways; what was read elsewhere does not count. */
  missing(bench: PracticeBench, pass: Pass): number {
    const top = this.lesson.points.at(-1);
    return this.lesson.points.filter((percent) =>
      (['up', 'down'] as const).some(
        (way) =>
          // The top is read once, where the run turns.
          !(percent === top && way === 'down') &&
          !bench.taken.some(
            (one) => one.pass === pass && one.percent === percent && one.way === way && this.isNear(one),
          ),
      ),
    ).length;
  }

  readings(bench: PracticeBench): void {
    for (const one of bench.taken) this.reading(one);
  }
  private reading(one: Taken): void {
    const { atS, percent, way, movedOutput, pastPoint, wrote, shown, stood } = one;
    const limit = this.limitAt(percent);
    if (movedOutput > (limit * MOVING_PERCENT_OF_LIMIT) / 100)
      this.take(atS, 2, `${percent} % was read while it moved`);
    // The lowest is vented or pumped to, and has no side to come from.
    if (percent !== this.lesson.points[0] && pastPoint > this.share(PAST_PERCENT, percent))
      this.take(atS, 3, `${percent} % ${way === 'up' ? 'rising' : 'falling'} was overshot`);
    if (!this.isNear(one)) this.take(atS, 3, `${percent} % was read far from its point`);
    if (wrote === null) return;
    if (shown === null) this.take(atS, 3, `${percent} % was written down though nothing was shown`);
    else if (Math.abs(wrote.output - shown) > Math.max(limit * EYE_PERCENT_OF_LIMIT, 1e-9) / 100)
      this.take(atS, 2, `${percent} % was written down as something else than was shown`);
    if (Math.abs(wrote.applied - stood) > this.share(APPLIED_PERCENT, percent))
      this.take(
        atS,
        3,
        this.lesson.second === null
          ? `${percent} %: another pressure was written down than was applied`
          : `${percent} % was read at a reference that is not good there`,
      );
  }

  /** What is left to be seen at the end. */
  finish(bench: PracticeBench, record: readonly Done[], named: readonly Cause[]): void {
    const { lesson } = this;
    const end = bench.timeS;
    const worst = this.worst(bench);
    const of = lesson.limitOf === 'span' ? 'of span' : 'of what it reads';
    if (this.isCurable && worst > lesson.limitPercent)
      this.take(end, 40, `what is left is outside the limit, ${worst.toFixed(2)} % ${of}`);
    else if (this.isCurable && worst > this.adjustLimit)
      this.take(end, 10, `what is left is past the adjust limit, ${worst.toFixed(2)} % ${of}`);
    if (lesson.task === 'run' && lesson.hasAsFound && this.missing(bench, 'as found') > 0)
      this.take(end, 10, 'it was not read as found at every point');
    if (
      lesson.task === 'run' &&
      record.some(({ act }) => isAdjusting(act)) &&
      this.missing(bench, 'as left') > 0
    )
      this.take(end, 15, 'what was adjusted was not read as left at every point');
    for (const cause of this.causes)
      if (!named.includes(cause)) this.take(end, 15, 'what was wrong was not named');
    for (const cause of named)
      if (!this.causes.includes(cause)) this.take(end, 10, 'something was named that was not wrong');
    if (bench.mostApplied > lesson.referenceLimit) this.take(end, 15, 'the reference was over-ranged');
    this.passes(end, record);
    this.service(bench);
    const late = Math.floor((end - lesson.minutes * 60) / 60);
    if (late > 0) this.take(end, Math.min(10, late), `${late} min longer than it takes`);
  }

  private passes(end: number, record: readonly Done[]): void {
    const passes = Math.ceil(settingsIn(record) / 2);
    if (passes > FREE_PASSES) this.take(end, 2 * (passes - FREE_PASSES), `${passes} passes of the screws`);
  }

  private service(bench: PracticeBench): void {
    const { swap } = this.lesson;
    for (const { atS, why } of bench.unsafe) this.take(atS, 10, `unsafe: ${why}`);
    if (bench.field !== null && bench.field.lacks > 0)
      this.take(bench.timeS, 25, 'it is not back in service: its valves do not stand so');
    if (swap === null || bench.exchange === null) return;
    const { mounted, made } = bench.exchange;
    if (mounted === null) this.take(bench.timeS, 20, 'no other body was mounted');
    else if (mounted !== swap.right)
      this.take(bench.timeS, 20, `${swap.bodies[mounted]?.name ?? 'the body'} is not the one for this range`);
    if (mounted !== null && made.size < swap.steps.length)
      this.take(bench.timeS, 10, 'the exchange was not finished');
  }

  /** Each setting that is not as the sheet has it. */
  setup(bench: PracticeBench): SetupComparison | null {
    const { lesson } = this;
    if (lesson.setup === null) return null;
    const compared = compareSetups(lesson.setup, bench.setup);
    for (const { name, matters, percentOfSpan, wanted, read } of compared.differences) {
      if (matters === 'little' && Math.abs(percentOfSpan ?? 0) <= ROUNDING_PERCENT) continue;
      const points = matters === 'yes' ? 12 : matters === 'little' ? 5 : 3;
      this.take(bench.timeS, points, `${name} is ${read} and should be ${wanted}`);
    }
    return compared;
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
  const scorer = new Scorer(lesson, seed);
  let isTold = false;
  const bench = replayed(lesson, seed, record, Infinity, (so, done) => {
    if (done.act.do === 'hint') scorer.take(done.atS, 3, 'a hint');
    if (lesson.task !== 'run' || !lesson.hasAsFound || !isAdjusting(done.act) || isTold) return;
    isTold = true;
    if (scorer.missing(so, 'as found') > 0)
      scorer.take(done.atS, 10, 'adjusted before it was read as found at every point');
    if (scorer.worst(so) <= scorer.adjustLimit) scorer.take(done.atS, 10, 'adjusted without need');
  });
  const named = record.flatMap(({ act }) => (act.do === 'name' ? [act.causes] : [])).at(-1) ?? [];
  scorer.readings(bench);
  const setup = scorer.setup(bench);
  scorer.finish(bench, record, named);
  const deductions = [...scorer.deductions].sort((a, b) => a.atS - b.atS);
  return {
    points: Math.max(0, 100 - deductions.reduce((sum, { points }) => sum + points, 0)),
    deductions,
    causes: scorer.causes,
    named,
    left: lesson.points.map((percent) => ({ percent, error: bench.errorAt(percent) })),
    setup,
    timeS: bench.timeS,
  };
}
