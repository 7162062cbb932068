/** A link at a simulated bench against a Barys in memory, in a time of its own. */
import type { Order, Plan } from '@barys/core/automatic';
import type { Beat, BeatAnswer, BeatTaken, Port, Task } from '@barys/core/port';
import { PLAN as FIVE_POINTS, stopsOf } from '@barys/rig/running';
import { portsOf } from '@barys/rig/port';
import { expect } from 'vitest';
import { Bench, type Simulated } from '../src/bench';
import { Link } from '../src/link';
import { Simulation } from '../src/standIn';

export const CONFIGURATION = {
  tag: 'PT-1',
  lrv: 0,
  urv: 250,
  inputUnit: 'kPa',
  dampingS: 0.5,
  transferFunction: { kind: 'linear' } as const,
};
export const PLAN: Plan = {
  ...FIVE_POINTS,
  stops: stopsOf([0, 50, 100]),
  approach: { ratePercentPerS: 10, overshootPercent: 0.1 },
};

/** Barys as the link knows it: what is kept, and what is to do. */
export class FakeBarys {
  readonly kept = new Map<number, BeatTaken>();
  readonly all: BeatTaken[] = [];
  orders: { id: number; name: Order }[] = [];
  isAway = false;
  plan: Plan = PLAN;
  taps: Task['taps'] = [];
  ends: BeatAnswer['ends'] = [];
  requests: BeatAnswer['requests'] = [];
  answers: Beat['answers'][number][] = [];
  mostAnswers = 0;
  /** The beat arrives, and its answer does not. */
  losesAnswers = false;
  isEnded = false;
  refuses = false;
  last: Beat | null = null;
  doneOrder = 0;
  private held: string | null = null;

  beat = (beat: Beat): Promise<BeatAnswer> => {
    if (this.isAway) return Promise.reject(new Error('away'));
    this.last = beat;
    this.answers.push(...beat.answers);
    this.mostAnswers = Math.max(this.mostAnswers, beat.answers.length);
    this.requests = this.requests.filter(({ id }) => beat.answers.every((one) => one.id !== id));
    const refused: { clientKey: string; words: string }[] = [];
    for (const taken of beat.taken) {
      if (this.refuses) refused.push({ clientKey: taken.clientKey, words: 'The stage has passed.' });
      else if (
        !this.kept.has(taken.position) ||
        (taken.isRepeat && this.kept.get(taken.position)?.clientKey !== taken.clientKey)
      ) {
        this.kept.set(taken.position, taken);
        this.all.push(taken);
      }
    }
    this.doneOrder = beat.state?.doneOrder ?? this.doneOrder;
    if (beat.state !== null) this.held = beat.state.state.phase === 'held' ? beat.state.state.words : null;
    if (beat.state?.state.phase === 'finished') this.isEnded = true;
    if (this.losesAnswers) return Promise.reject(new Error('lost'));
    return Promise.resolve({
      refused,
      task: this.isEnded ? null : this.task(),
      ends: this.ends,
      requests: this.requests,
    });
  };

  private task(): Task {
    return {
      automatic: 1,
      plan: this.plan,
      open: PLAN.stops.map(({ position }) => position).filter((position) => !this.kept.has(position)),
      devices: { reference: 'Controller', output: 'Loop meter', digital: 'Transmitter' },
      taps: this.taps,
      lastTaken: this.all.at(-1)?.position ?? null,
      orders: this.orders.filter(({ id }) => id > this.doneOrder),
      wasHeld: this.held,
      doneOrder: this.doneOrder,
      decimals: { input: 3, output: 4 },
      configuration: CONFIGURATION,
    };
  }
}

/** The bench in memory, so that its time is the test's; over wires it is driven in text.test and in the journeys. */
export function benchOf(simulation: Simulation): Simulated & { readonly atTaps: Simulated['devices'] } {
  const through = (of: 'controller' | 'meter' | 'transmitter' | 'voltmeter' | 'receiver'): Port => {
    const now = () => {
      const { world, unit } = simulation.now();
      return portsOf(world, unit, 7, () => Date.now())[of];
    };
    const first = now();
    let state: Awaited<ReturnType<Port['state']>> = of === 'controller' ? 'vented' : 'measuring';
    return {
      channels: first.channels,
      identify: () => now().identify(),
      read: (channel) => now().read(channel),
      state: () => Promise.resolve(state),
      close: () => Promise.resolve(),
      ...(first.set && {
        set: (value, unit, rate) => (
          (state = 'controlling'),
          now().set?.(value, unit, rate) ?? Promise.resolve()
        ),
      }),
      ...(first.hold && { hold: () => ((state = 'holding'), now().hold?.() ?? Promise.resolve()) }),
      ...(first.vent && { vent: () => ((state = 'vented'), now().vent?.() ?? Promise.resolve()) }),
    };
  };
  return {
    takeOn: simulation.takeOn,
    devices: [
      { name: 'Controller', port: through('controller') },
      { name: 'Loop meter', port: through('meter') },
      { name: 'Transmitter', port: through('transmitter') },
    ],
    atTaps: [
      { name: 'Voltmeter', port: through('voltmeter') },
      { name: 'Receiver', port: through('receiver') },
    ],
  };
}

/** A link, its bench and its Barys, in a time that stands until it is moved on. */
export class Scene {
  s = 0;
  readonly barys = new FakeBarys();
  readonly bench: Simulated;
  link: Link;
  constructor(readonly end?: (bench: Simulated) => Simulated) {
    this.bench = benchOf(new Simulation(7, () => this.s));
    this.link = this.started();
  }
  started(): Link {
    const bench = this.end?.(this.bench) ?? this.bench;
    return new Link(new Bench(bench), { beat: this.barys.beat }, () => this.s, 20);
  }
  async turn(): Promise<void> {
    await this.link.turn().catch(() => undefined);
    this.s += 0.5;
  }
  async until(isSo: () => boolean, most = 2000): Promise<void> {
    for (let turns = 0; turns < most && !isSo(); turns += 1) await this.turn();
    expect(isSo(), JSON.stringify(this.barys.last?.state)).toBe(true);
  }
  get phase(): string | undefined {
    return this.barys.last?.state?.state.phase;
  }
  stateOf(name: string): Promise<string> {
    return this.bench.devices.find((one) => one.name === name)?.port.state() ?? Promise.resolve('');
  }
}

/** A scene in which one device does otherwise. */
export const broken = (of: string, change: (port: Port) => Port) =>
  new Scene((bench) => ({
    ...bench,
    devices: bench.devices.map((one) => (one.name === of ? { ...one, port: change(one.port) } : one)),
  }));
