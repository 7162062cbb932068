/**
 * A bench to practise at: a world with its controls, stepped by its own time, and the record of what was done at it. The same
 * lesson, seed and record give the same bench again, so that an attempt is replayed and scored from its acts and nothing else.
 */
import { CoreError } from '@barys/core/errors';
import { NOTHING_READ, type Setup } from '@barys/core/setup';
import { expectedOutput } from '@barys/core/signal';
import { shownBy } from '../reference';
import { column, readColumn, type Manometer } from '../sources';
import type { Swing } from '../sources/oscillation';
import type { Shown, World } from '../world';
import type { Act, Command, Done, Face, Wrote } from './acts';
import { Communication } from './communication';
import { Exchange } from './exchange';
import { Field } from './field';
import { Leads } from './leads';
import type { Lesson } from './lessons/lesson';
import { keyed, MENU_SHUT, wheeled, type Menued, type MenuState } from './menu';

/** What was read, as it was written down, with what only the scorer may look at. */
export interface Taken {
  readonly atS: number;
  readonly percent: number;
  readonly way: 'up' | 'down';
  readonly pass: 'as found' | 'as left';
  readonly reference: number;
  readonly output: number | null;
  readonly wrote: Wrote | null;
  /** What was shown then, and what stood at its standard: what was really applied where two of them are to choose from. */
  readonly shown: number | null;
  readonly stood: number;
  /** Of the last moments before it: how far the true output moved, and how far the pressure went past the point, input unit. */
  readonly movedOutput: number;
  readonly pastPoint: number;
}

/** Something that could have hurt somebody, or the plant. */
export interface Unsafe {
  readonly atS: number;
  readonly why: string;
}

/** Nobody is longer at a lesson, s of the bench; then its time stands. */
export const LONGEST_S = 7200;

/** How long an output stands before it is read, s. */
const STANDS_S = 2;
const STEP_S = 0.1;

/** A U of glass with mercury, millimetres for a psi. */
const COLUMN: Manometer = { perUnit: 51.715, length: 900, omega: 4, zeta: 0.4, parallax: 0.2 };

const refuse = (what: string): never => {
  throw new CoreError({ code: 'undefined-result', name: what, why: 'this bench has no such control' }, 'act');
};

/** Two turns of one control the same way as one; null for what stays two acts. Back and forth is not the same where there is play. */
function together(first: Act, second: Act): Act | null {
  const isSameWay = (a: number, b: number) => Math.sign(a) === Math.sign(b);
  if (first.do === 'turn' && second.do === 'turn')
    return first.screw === second.screw && isSameWay(first.turns, second.turns)
      ? { ...first, turns: first.turns + second.turns }
      : null;
  if (first.do === 'fine' && second.do === 'fine' && isSameWay(first.turns, second.turns))
    return { do: 'fine', turns: first.turns + second.turns };
  if (first.do === 'wheel' && second.do === 'wheel' && isSameWay(first.clicks, second.clicks))
    return { do: 'wheel', clicks: first.clicks + second.clicks };
  if ((first.do === 'vent' && second.do === 'vent') || (first.do === 'name' && second.do === 'name'))
    return second;
  return null;
}

export class PracticeBench {
  world: World;
  readonly taken: Taken[] = [];
  readonly done: Done[] = [];
  readonly unsafe: Unsafe[] = [];
  readonly field: Field | null;
  readonly leads: Leads;
  readonly exchange: Exchange | null;
  menu: MenuState = MENU_SHUT;
  face: Face;
  /** Which end a null meter is set to. */
  nullAt: 0 | 100 = 0;
  /** Highest pressure that was made, input unit. */
  mostApplied = 0;
  private time = 0;
  private highest: number;
  private lowest: number;
  private readonly recent: number[] = [];
  private mercury: Swing = { x: 0, v: 0 };
  private readonly communication = new Communication();

  constructor(
    readonly lesson: Lesson,
    readonly seed: number,
  ) {
    this.world = lesson.make(seed);
    this.face = lesson.face;
    const process = lesson.field?.(seed);
    this.field = process === undefined ? null : new Field(process, this.world.filledLeg, this.world.fullLegs);
    this.leads = new Leads(this.world, lesson.lead, lesson.isInService);
    this.exchange = lesson.swap === null ? null : new Exchange(lesson.swap);
    this.highest = this.lowest = this.world.truth.applied;
    this.advance(1);
  }

  get timeS(): number {
    return this.time;
  }
  /** Whether its time is over; it is read and finished all the same. */
  get isOver(): boolean {
    return this.time > LONGEST_S - STEP_S;
  }
  get shown(): Shown {
    return this.world.shown;
  }

  /** What an eye reads of the output, in its unit: at a meter, at a meniscus, at the instrument itself; null where nothing shows. */
  get output(): number | null {
    if (this.exchange?.isDead === true) return null;
    if (this.lesson.readBy === 'meniscus') return readColumn(COLUMN, this.mercury);
    if (this.lesson.outputUnit !== 'mA') return this.world.shown.own;
    const shown = this.leads.shown;
    return shown?.unit === 'mA' ? shown.value : null;
  }

  /** What a reference for low pressures shows beside the first; null where there is none, and beyond its end. */
  get fine(): number | null {
    const { second } = this.lesson;
    const made = this.world.truth.applied;
    return second === null || made > second.fineLimit * 1.05 ? null : shownBy(second.fine, made);
  }

  /** What the transmitter's own menu works on; null where the instrument has none. */
  get menued(): Menued | null {
    const { tested } = this.world;
    if (tested.kind !== 'smart transmitter') return null;
    const wanted = this.lesson.setup?.displayUnit ?? this.lesson.unit;
    const units = [...new Set([this.lesson.face.displayUnit, wanted, this.lesson.unit, '%'])];
    return { settings: tested.state.settings, face: this.face, units };
  }

  /** What is set in the transmitter, to be held against a data sheet. */
  get setup(): Setup {
    const { menued, lesson } = this;
    if (menued === null) return NOTHING_READ;
    const { lrv, urv, dampingS, displayDampingS, transfer, displayLow, displayHigh, drivenBy } =
      menued.settings;
    return {
      ...NOTHING_READ,
      ...this.face,
      inputUnit: lesson.setup?.inputUnit ?? null,
      lrv,
      urv,
      dampingS,
      displayDampingS,
      transferFunction: transfer,
      displayLow,
      displayHigh,
      drivenBy,
    };
  }

  /** What really goes out: the current, or the signal of what has none. */
  private get signal(): number {
    return this.lesson.readBy === 'meniscus'
      ? (this.output ?? 0)
      : (this.world.truth.milliamp ?? this.world.shown.own ?? 0);
  }

  /** Lets the time of the bench pass. */
  advance(seconds: number): void {
    const left = (LONGEST_S - this.time) / STEP_S;
    const steps = Math.min(Math.floor(left), Math.max(1, Math.round(seconds / STEP_S)));
    for (let count = 0; count < steps; count += 1) this.tick();
  }

  private tick(): void {
    const { world, field, recent } = this;
    if (field !== null) {
      world.hook(field.step(STEP_S));
      world.fillLeg(field.filled);
    }
    world.step(STEP_S);
    this.time += STEP_S;
    if (this.lesson.readBy === 'meniscus')
      this.mercury = column(COLUMN, this.mercury, world.shown.own ?? 0, STEP_S);
    const { applied } = world.truth;
    this.mostApplied = Math.max(this.mostApplied, applied);
    this.highest = Math.max(this.highest, applied);
    this.lowest = Math.min(this.lowest, applied);
    recent.push(this.signal);
    if (recent.length > STANDS_S / STEP_S) recent.shift();
  }

  /**
   * Does an act now.
   * @returns what the instrument answered, where it was told something; null where nothing is said
   * @throws CoreError `undefined-result` for a control that this bench does not have
   */
  act(act: Act): string | null {
    const answer = this.make(act);
    const last = this.done.at(-1);
    const both = last?.atS === this.time ? together(last.act, act) : null;
    // A hand that drags makes many small turns in a moment: they are one.
    if (both === null) this.done.push({ atS: this.time, act });
    else this.done[this.done.length - 1] = { atS: this.time, act: both };
    return answer;
  }

  private warn(whys: readonly string[]): string | null {
    for (const why of whys) this.unsafe.push({ atS: this.time, why });
    return whys.length === 0 ? null : whys.join(' ');
  }

  private make(act: Act): string | null {
    switch (act.do) {
      case 'stroke':
      case 'fine':
      case 'vent':
      case 'pressure':
      case 'manifold':
        return this.press(act);
      case 'turn':
      case 'tap':
      case 'take':
      case 'restore':
      case 'gauge zero':
      case 'gauge span':
        return this.adjust(act);
      case 'tell':
        return this.tell(act.command);
      case 'wheel':
      case 'key':
        return this.walk(act);
      case 'lead':
        return this.warn(this.leads.move(act.to));
      case 'jack':
        return this.warn(this.leads.plug(act.to));
      case 'null':
        this.nullAt = act.at;
        return null;
      case 'valve':
        return this.warn((this.field ?? refuse('The valve')).move(act.move));
      case 'fill leg':
        return (this.field ?? refuse('The leg')).fill();
      case 'pick body':
      case 'swap':
        return this.swap(act);
      case 'read':
        this.read(act);
        return null;
      case 'log':
      case 'mark':
      case 'name':
      case 'hint':
        return null;
    }
  }

  private press(
    act: Extract<Act, { readonly do: 'stroke' | 'fine' | 'vent' | 'pressure' | 'manifold' }>,
  ): null {
    const { source } = this.world;
    if (act.do === 'pressure') {
      if (source.kind !== 'controller') return refuse('The controller');
      source.set(act.to);
    } else if (act.do === 'manifold') {
      if (source.kind !== 'manifold') return refuse('The manifold');
      const { do: _do, ...patch } = act;
      source.change(patch);
    } else if (source.kind !== 'pump') return refuse('The pump');
    else if (act.do === 'stroke') source.stroke();
    else if (act.do === 'fine') source.adjust(act.turns);
    else source.vent(Math.min(1, Math.max(0, act.open)));
    return null;
  }

  private adjust(
    act: Extract<Act, { readonly do: 'turn' | 'tap' | 'take' | 'restore' | 'gauge zero' | 'gauge span' }>,
  ): string | null {
    const { tested } = this.world;
    switch (act.do) {
      case 'turn':
        if (tested.kind === 'analog transmitter') tested.turn({ [act.screw]: act.turns });
        else if (tested.kind === 'force balance')
          tested.turn(act.screw === 'zero' ? { zero: act.turns } : { wheel: act.turns });
        else return refuse('The screw');
        return null;
      case 'tap':
        if (tested.kind !== 'dial gauge') return refuse('The needle');
        tested.tap();
        return null;
      case 'take':
        return tested.kind === 'digital gauge' ? tested.calibrate(act.point, act.said) : refuse('The keys');
      case 'restore':
        if (tested.kind !== 'digital gauge') return refuse('The keys');
        tested.restore(act.set);
        return null;
      case 'gauge zero':
        if (tested.kind !== 'heat-loss gauge') return refuse('The zero');
        tested.zero();
        return 'done';
      case 'gauge span':
        return tested.kind === 'heat-loss gauge' ? tested.spanAt(act.said) : refuse('The span');
    }
  }

  private tell(command: Command): string | null {
    const { tested } = this.world;
    if (tested.kind !== 'smart transmitter') return refuse('The communicator');
    if (this.exchange?.isDead === true) return 'it does not answer';
    if (command.kind === 'face') {
      this.face = { ...this.face, ...command.face };
      return 'done';
    }
    return this.communication.tell(tested, command);
  }

  private walk(act: Extract<Act, { readonly do: 'wheel' | 'key' }>): string | null {
    const { menued } = this;
    if (menued === null) return refuse('The menu');
    if (act.do === 'wheel') {
      this.menu = wheeled(this.menu, act.clicks, menued);
      return null;
    }
    const { state, command } = keyed(this.menu, act.key, menued);
    const said = command === null ? null : this.tell(command);
    this.menu = said === null ? state : { ...state, said };
    return said;
  }

  private swap(act: Extract<Act, { readonly do: 'pick body' | 'swap' }>): string | null {
    const { exchange } = this;
    if (exchange === null) return refuse('The exchange');
    if (act.do === 'pick body') return exchange.pick(act.body);
    const { unsafe, refused, isMounted } = exchange.step(act.step, this.world.truth.applied);
    if (refused !== null) return refused;
    if (isMounted) {
      this.world = exchange.make(this.seed);
      this.leads.moveTo(this.world);
    }
    return this.warn(unsafe);
  }

  private read({ percent, way, pass, wrote }: Extract<Act, { readonly do: 'read' }>): void {
    const { lrv, urv } = this.lesson.range;
    const point = lrv + ((urv - lrv) * percent) / 100;
    const { applied } = this.world.truth;
    const shown = this.output;
    const { reference } = this.world.shown;
    this.taken.push({
      atS: this.time,
      percent,
      way,
      pass,
      reference: wrote?.applied ?? reference,
      output: wrote?.output ?? shown,
      wrote: wrote ?? null,
      shown,
      stood: this.lesson.second === null ? reference : applied,
      movedOutput: Math.max(...this.recent) - Math.min(...this.recent),
      pastPoint: Math.max(0, way === 'up' ? this.highest - point : point - this.lowest),
    });
    this.highest = this.lowest = applied;
  }

  /** The true error at a point as the instrument is set now, per cent of the output span or of the reading. For the scorer alone. */
  errorAt(percent: number): number {
    const { range, limitOf } = this.lesson;
    const { lrv, urv, outputLow, outputHigh } = range;
    const applied = lrv + ((urv - lrv) * percent) / 100;
    const signal = this.world.signalAt(applied) ?? 0;
    const ideal = expectedOutput(range, applied);
    return ((signal - ideal) / Math.abs(limitOf === 'span' ? outputHigh - outputLow : ideal)) * 100;
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
