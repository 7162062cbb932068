/**
 * A bench to practise at: a world with its controls, stepped by its own time, and the record of what was done at it. The same
 * lesson, seed and record give the same bench again, so that an attempt is replayed and scored from its acts and nothing else.
 */
import { CoreError } from '@barys/core/errors';
import { expectedOutput } from '@barys/core/signal';
import { hold, trimOutput, trimSensor, trimZero, configure, type Written } from '../smart';
import type { Shown, World } from '../world';
import type { Act, Command, Done } from './acts';
import type { Lesson } from './lessons';

/** What was read, as it was shown, with what only the scorer may look at. */
export interface Taken {
  readonly atS: number;
  readonly percent: number;
  readonly way: 'up' | 'down';
  readonly pass: 'as found' | 'as left';
  readonly reference: number;
  readonly output: number | null;
  /** Of the last moments before it: how far the true output moved, and how far the pressure went past the point, input unit. */
  readonly movedOutput: number;
  readonly pastPoint: number;
}

/** Nobody is longer at a lesson, s of the bench; then its time stands. */
export const LONGEST_S = 7200;

/** How long an output stands before it is read, s. */
const STANDS_S = 2;
const STEP_S = 0.1;

const refuse = (what: string): never => {
  throw new CoreError({ code: 'undefined-result', name: what, why: 'this bench has no such control' }, 'act');
};

export class PracticeBench {
  readonly world: World;
  readonly taken: Taken[] = [];
  readonly done: Done[] = [];
  /** Highest pressure that was made, input unit. */
  mostApplied = 0;
  private time = 0;
  private highest = 0;
  private lowest = 0;
  private readonly recent: number[] = [];
  /** What a communicator was told of the ends of a trim, until both are there. */
  private lower: { readonly raw: number; readonly applied: number } | null = null;
  private measured4: number | null = null;

  constructor(
    readonly lesson: Lesson,
    readonly seed: number,
  ) {
    this.world = lesson.make(seed);
    this.advance(1);
  }

  get timeS(): number {
    return this.time;
  }
  get shown(): Shown {
    return this.world.shown;
  }

  /** What really goes out: the current, or the signal of what has none. */
  private get signal(): number {
    return this.world.truth.milliamp ?? this.world.shown.own ?? 0;
  }

  /** Lets the time of the bench pass. */
  advance(seconds: number): void {
    const left = (LONGEST_S - this.time) / STEP_S;
    const steps = Math.min(Math.floor(left), Math.max(1, Math.round(seconds / STEP_S)));
    for (let count = 0; count < steps; count += 1) {
      this.world.step(STEP_S);
      this.time += STEP_S;
      const { applied } = this.world.truth;
      this.mostApplied = Math.max(this.mostApplied, applied);
      this.highest = Math.max(this.highest, applied);
      this.lowest = Math.min(this.lowest, applied);
      this.recent.push(this.signal);
      if (this.recent.length > STANDS_S / STEP_S) this.recent.shift();
    }
  }

  /**
   * Does an act now.
   * @returns what the instrument answered, where it was told something; null where nothing is said
   * @throws CoreError `undefined-result` for a control that this bench does not have
   */
  act(act: Act): string | null {
    const answer = this.make(act);
    this.done.push({ atS: this.time, act });
    return answer;
  }

  private make(act: Act): string | null {
    const { source, tested } = this.world;
    switch (act.do) {
      case 'stroke':
        if (source.kind !== 'pump') return refuse('The pump');
        source.stroke();
        return null;
      case 'fine':
        if (source.kind !== 'pump') return refuse('The fine adjuster');
        source.adjust(act.turns);
        return null;
      case 'vent':
        if (source.kind !== 'pump') return refuse('The vent');
        source.vent(Math.min(1, Math.max(0, act.open)));
        return null;
      case 'pressure':
        if (source.kind !== 'controller') return refuse('The controller');
        source.set(act.to);
        return null;
      case 'turn':
        if (tested.kind === 'analog transmitter') tested.turn({ [act.screw]: act.turns });
        else if (tested.kind === 'force balance')
          tested.turn(act.screw === 'zero' ? { zero: act.turns } : { wheel: act.turns });
        else return refuse('The screw');
        return null;
      case 'take':
        return tested.kind === 'digital gauge' ? tested.calibrate(act.point, act.said) : refuse('The keys');
      case 'restore':
        if (tested.kind !== 'digital gauge') return refuse('The keys');
        tested.restore(act.set);
        return null;
      case 'tell':
        return this.tell(act.command);
      case 'read':
        this.read(act);
        return null;
      case 'name':
      case 'hint':
        return null;
    }
  }

  private read({ percent, way, pass }: Extract<Act, { readonly do: 'read' }>): void {
    const { lrv, urv } = this.lesson.range;
    const point = lrv + ((urv - lrv) * percent) / 100;
    const { reference, meter, own } = this.world.shown;
    this.taken.push({
      atS: this.time,
      percent,
      way,
      pass,
      reference,
      output: meter ?? own,
      movedOutput: Math.max(...this.recent) - Math.min(...this.recent),
      pastPoint: Math.max(0, way === 'up' ? this.highest - point : point - this.lowest),
    });
    this.highest = this.lowest = this.world.truth.applied;
  }

  private tell(command: Command): string | null {
    const { tested } = this.world;
    if (tested.kind !== 'smart transmitter') return refuse('The communicator');
    const written = this.written(command);
    if (typeof written === 'string') return written;
    tested.state = written;
    return 'done';
  }

  private written(command: Command): Written {
    const { tested } = this.world;
    if (tested.kind !== 'smart transmitter') return refuse('The communicator');
    const { smart, state } = tested;
    switch (command.kind) {
      case 'zero trim':
        return trimZero(smart, state);
      case 'hold':
        return hold(state, command.milliamp);
      case 'set':
        return configure(state, command.settings);
      case 'sensor trim': {
        const here = { raw: state.raw, applied: command.applied };
        if (command.end === 'lower') {
          this.lower = here;
          return state;
        }
        return this.lower === null ? 'no span' : trimSensor(smart, state, this.lower, here);
      }
      case 'output trim':
        if (command.at === 4) {
          this.measured4 = command.measured;
          return state;
        }
        return this.measured4 === null ? 'no span' : trimOutput(state, this.measured4, command.measured);
    }
  }

  /** The true error at a point as the instrument is set now, per cent of the output span. For the scorer alone. */
  errorAt(percent: number): number {
    const { lrv, urv, outputLow, outputHigh } = this.lesson.range;
    const applied = lrv + ((urv - lrv) * percent) / 100;
    const signal = this.world.signalAt(applied) ?? 0;
    const ideal = expectedOutput(this.lesson.range, applied);
    return ((signal - ideal) / Math.abs(outputHigh - outputLow)) * 100;
  }
}

/** The bench as it stood after a record, or at a time of it: for a replay, and for the score. */
export function replayed(
  lesson: Lesson,
  seed: number,
  record: readonly Done[],
  untilS: number = Infinity,
  watch: (bench: PracticeBench, done: Done) => void = () => undefined,
): PracticeBench {
  const bench = new PracticeBench(lesson, seed);
  for (const done of record) {
    if (done.atS > untilS) break;
    if (done.atS > bench.timeS + STEP_S / 2) bench.advance(done.atS - bench.timeS);
    watch(bench, done);
    bench.act(done.act);
  }
  if (Number.isFinite(untilS) && untilS > bench.timeS) bench.advance(untilS - bench.timeS);
  return bench;
}
