/** Hands for the tests: they see what is shown and nothing else, and work the controls as an expert would. */
import { adviseScrews, type ScrewMove } from '@barys/core/adjust';
import { expectedOutput } from '@barys/core/signal';
import type { Act, Cause, Pass, Way } from './acts';
import { PracticeBench } from './bench';
import { menuLines } from './menu';
import type { Lesson } from './lessons/lesson';

export class Hands {
  readonly bench: PracticeBench;
  /** Turns of the adjuster from its middle. */
  private wound = 0;
  constructor(
    readonly lesson: Lesson,
    seed: number,
  ) {
    this.bench = new PracticeBench(lesson, seed);
  }

  do(act: Act): string | null {
    return this.bench.act(act);
  }
  wait(seconds: number): void {
    this.bench.advance(seconds);
  }
  get pressure(): number {
    return this.bench.shown.reference;
  }
  /** What an eye reads of the output. */
  get output(): number {
    return this.bench.output ?? NaN;
  }

  pointAt(percent: number): number {
    const { lrv, urv } = this.lesson.range;
    return lrv + ((urv - lrv) * percent) / 100;
  }

  /** Comes to a pressure from its own side and waits until it stands. */
  go(to: number, way: Way): void {
    if (this.bench.world.source.kind === 'controller') {
      this.do({ do: 'pressure', to });
      this.wait(30);
      return;
    }
    if (this.bench.world.source.kind === 'manifold') {
      if (way === 'up' && this.pressureOf() < to) this.bleedUp(to);
      else this.pumpDown(to);
      return;
    }
    if (to === 0) {
      this.do({ do: 'vent', open: 1 });
      this.windBack();
      this.wait(12);
      this.do({ do: 'vent', open: 0 });
      this.wait(3);
      return;
    }
    if (way === 'up') this.pumpUp(to);
    else this.bleedDown(to);
  }

  /** What the reference that reaches there shows. */
  private pressureOf(): number {
    return this.bench.fine ?? this.pressure;
  }
  /** Pumps down by the rotary pump, and by the other one where that alone would end. */
  pumpDown(to: number): void {
    this.do({ do: 'manifold', rotary: true, bleed: 0, valve: this.pressureOf() > to * 30 ? 1 : 0.1 });
    for (let count = 0; count < 4000 && this.pressureOf() > to; count += 1) {
      const rest = this.pressureOf() / to;
      // Close to the point the valve is throttled, so that it is not gone past.
      if (count % 20 === 0)
        this.do({
          do: 'manifold',
          diffusion: to < 0.8 && this.pressureOf() < 20,
          valve: rest > 30 ? 1 : rest > 3 ? 0.3 : 0.08,
        });
      this.wait(0.5);
    }
    this.do({ do: 'manifold', valve: 0, diffusion: false });
    this.wait(3);
  }
  private bleedUp(to: number): void {
    while (this.pressureOf() < to * 0.97) {
      this.do({ do: 'manifold', valve: 0, bleed: Math.min(1, (to - this.pressureOf()) / 1500) });
      this.wait(1);
    }
    this.do({ do: 'manifold', bleed: 0 });
    this.wait(3);
  }

  /** The adjuster back to its middle, or there is no room to turn it next time. */
  private windBack(): void {
    this.do({ do: 'fine', turns: -this.wound });
    this.wound = 0;
  }

  /** Strokes as long as one more stays below, then the adjuster, and again as the gas cools. */
  private pumpUp(to: number): void {
    this.windBack();
    // What a stroke brings at first is partly warmth: after it is gone there is room for another.
    for (let round = 0; round < 6; round += 1) {
      let last = 3;
      while (this.pressure + last * 1.6 + 0.5 < to) {
        const before = this.pressure;
        this.do({ do: 'stroke' });
        this.wait(0.5);
        last = this.pressure - before;
      }
      this.wait(25);
      if (to - this.pressure < 8) break;
    }
    this.wait(20);
    this.fineTo(to);
  }

  private bleedDown(to: number): void {
    while (this.pressure > to + 1.5) {
      const rest = this.pressure - to;
      this.do({ do: 'vent', open: Math.min(0.15, rest / 600) });
      this.wait(0.3);
      this.do({ do: 'vent', open: 0 });
      this.wait(0.2);
    }
    this.wait(5);
    this.fineTo(to);
  }

  /** Turns the adjuster in ever smaller parts of what is missing. */
  private fineTo(to: number): void {
    let perTurn = 1.8;
    for (let tries = 0; tries < 80 && Math.abs(to - this.pressure) > 0.01; tries += 1) {
      const before = this.pressure;
      const turns = ((to - before) * 0.7) / perTurn;
      this.do({ do: 'fine', turns });
      this.wound += turns;
      this.wait(2);
      const moved = this.pressure - before;
      if (Math.abs(moved) > 0.02) perTurn = Math.max(0.3, Math.min(3, moved / turns));
    }
    this.wait(4);
  }

  /** All points up and down, waited for and read. */
  run(pass: Pass): void {
    const { points } = this.lesson;
    for (const percent of points) this.readAt(percent, 'up', pass);
    for (const percent of [...points].reverse().slice(1)) this.readAt(percent, 'down', pass);
  }
  private readAt(percent: number, way: Way, pass: Pass): void {
    this.go(this.pointAt(percent), way);
    // Where two references hang side by side, the one that reaches there is written down.
    const wrote =
      this.lesson.second === null ? {} : { wrote: { applied: this.pressureOf(), output: this.output } };
    this.do({ do: 'read', percent, way, pass, ...wrote });
  }

  name(...causes: Cause[]): void {
    this.do({ do: 'name', causes });
  }

  /** Turns a screw until the meter shows a value, as near as hands come. */
  set(screw: 'zero' | 'span', to: number): ScrewMove {
    const span = this.lesson.range.outputHigh - this.lesson.range.outputLow;
    const before = this.output;
    // More arm of the feedback is less output.
    const isReversed = screw === 'span' && this.bench.world.tested.kind === 'force balance';
    let perTurn = (isReversed ? -0.04 : 0.04) * span;
    let after = before;
    for (let tries = 0; tries < 25 && Math.abs(to - after) > 0.0001 * span; tries += 1) {
      const turns = Math.max(-1, Math.min(1, (to - after) / perTurn));
      this.do({ do: 'turn', screw, turns });
      this.wait(3);
      const moved = this.output - after;
      // A screw in its play moves nothing; what moved well says how far a turn goes.
      const seen = moved / turns;
      const isGood = Math.abs(moved) > 0.0006 * span && Math.sign(seen) === Math.sign(perTurn);
      if (isGood) perTurn = Math.sign(seen) * Math.max(0.01, Math.min(0.2, Math.abs(seen) / span)) * span;
      after = this.output;
    }
    return { screw, before, after };
  }

  private goTo(screw: 'zero' | 'span'): void {
    this.go(screw === 'zero' ? this.pointAt(0) : this.pointAt(100), 'up');
  }

  /** Zero and span as advised, from what was read. */
  adjustScrews(): void {
    const { range } = this.lesson;
    const endOf = (percent: number) => {
      const one = this.bench.taken.find((taken) => taken.percent === percent && taken.way === 'up');
      if (one?.output == null) throw new Error(`${percent} % was not read`);
      return (
        one.output -
        expectedOutput(range, one.reference) +
        (percent === 0 ? range.outputLow : range.outputHigh)
      );
    };
    const situation = {
      targets: [range.outputLow, range.outputHigh],
      found: [endOf(0), endOf(100)],
      noise: 0.00003 * (range.outputHigh - range.outputLow),
      tolerance: 0.0002 * (range.outputHigh - range.outputLow),
    } as const;
    const moves: ScrewMove[] = [];
    for (let count = 0; count < 6; count += 1) {
      const { next } = adviseScrews({ ...situation, moves });
      if (next === null) return;
      this.goTo(next.screw);
      const now = { at: next.screw, reading: this.output };
      const { next: there } = adviseScrews({ ...situation, moves, now });
      if (there === null) return;
      // What is read here may say that it is the other end's turn.
      if (there.screw !== next.screw) this.goTo(there.screw);
      moves.push(this.set(there.screw, there.setTo));
    }
  }

  /** Turns the wheel to a line of the menu by its word, and takes it. */
  take(word: string): void {
    const { menued } = this.bench;
    if (menued === null) throw new Error('there is no menu');
    const at = menuLines(this.bench.menu, menued).findIndex((one) => one.word === word);
    if (at < 0) throw new Error(`the menu has no ${word}`);
    this.do({ do: 'wheel', clicks: at - this.bench.menu.at });
    this.do({ do: 'key', key: 'take' });
  }
  /** A number at the menu: digit by digit, from the left. */
  enter(word: string, value: number): void {
    this.take(word);
    for (const place of [100, 10, 1, 0.1, 0.01, 0.001]) {
      const rest = value - (this.bench.menu.number?.value ?? value);
      this.do({
        do: 'wheel',
        clicks:
          place === 0.001 ? Math.round(rest / place) : Math.trunc(rest / place + Math.sign(rest) * 1e-9),
      });
      this.do({ do: 'key', key: 'take' });
    }
  }
  /** A choice at the menu, by its word. */
  choose(word: string, option: string): void {
    this.take(word);
    const { menued } = this.bench;
    for (let clicks = 0; clicks < 12; clicks += 1) {
      const line =
        menued === null ? undefined : menuLines(this.bench.menu, menued).find((one) => one.isInHand);
      if (line?.value === `[${option}]`) break;
      this.do({ do: 'wheel', clicks: clicks === 0 ? -12 : 1 });
    }
    this.do({ do: 'key', key: 'take' });
  }
  back(): void {
    this.do({ do: 'key', key: 'back' });
  }
}
