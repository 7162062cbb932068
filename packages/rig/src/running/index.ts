/** Automatic runs at a simulated bench in its own time: five points up and down, for tests and for the figures. */
import {
  advance,
  begin,
  type AutoState,
  type Plan,
  type Seen,
  type Taken,
  type Value,
} from '@barys/core/automatic';
import type { Channel, Port, PortValue } from '@barys/core/port';
import { upAndDown } from '@barys/core/procedure';
import { portsOf, type RigPorts } from '../port';
import type { Settings } from '../smart';
import { makeWorld, type Planted, type SmartWorld } from '../world';

export const SETTINGS: Settings = {
  lrv: 0,
  urv: 250,
  transfer: { kind: 'linear' },
  dampingS: 0.5,
  displayDampingS: 1,
  displayLow: 0,
  displayHigh: 250,
  drivenBy: 'pressure',
  scaledTransfer: { kind: 'linear' },
  isProtected: false,
};
export const RANGE = { lrv: 0, urv: 250, outputLow: 4, outputHigh: 20 };

/** Stops up and down the range of 250 kPa. */
export const stopsOf = (percents: readonly number[]): Plan['stops'] =>
  upAndDown(percents).map(({ position, direction, nominalPercent }) => ({
    position,
    direction,
    applied: nominalPercent * 2.5,
  }));
export const STOPS = stopsOf([0, 25, 50, 75, 100]);
export const PLAN: Plan = {
  stops: STOPS,
  unit: 'kPa',
  inputSpan: 250,
  outputSpan: 16,
  settle: { waitS: 3.5, holdS: 5, bandPercent: 0.1 },
  approach: { ratePercentPerS: 5, overshootPercent: 0.1 },
  onLoss: 'hold',
  isByHand: false,
  reference: { low: -100, high: 700 },
  isCurrent: true,
  patienceS: 120,
  staleS: 2,
};

/** A bench in its own time: the link’s loop without its clock. */
export class Bench {
  s = 1000;
  state: AutoState;
  readonly taken: Taken[] = [];
  /** The receiver gives nothing. */
  isBlindAtCard = false;
  readonly world: SmartWorld;
  readonly ports: RigPorts;
  /** The farthest that the truth went past a rising or falling stop before it was read, per cent of span. */
  worstPast = -Infinity;
  constructor(
    planted: readonly Planted[] = [],
    readonly plan = PLAN,
    seed = 7,
    settings = SETTINGS,
  ) {
    this.world = makeWorld(settings, seed, { planted });
    this.ports = portsOf(this.world, 'kPa', seed, () => this.s * 1000);
    this.state = begin(0, this.s);
  }
  private static valueOf = ({ at, value, isStable }: PortValue): Value => ({ s: at / 1000, value, isStable });
  async seen(): Promise<Seen> {
    const one = (port: Port, channel: Channel) => port.read(channel).then(Bench.valueOf, () => null);
    return {
      s: this.s,
      reference: await one(this.ports.controller, 'pressure'),
      output: await one(this.ports.meter, 'current'),
      digital: await one(this.ports.transmitter, 'digital value'),
      taps: [
        await one(this.ports.voltmeter, 'voltage'),
        this.isBlindAtCard ? null : await one(this.ports.receiver, 'display'),
      ],
      alarm: null,
    };
  }
  async look(seen?: Seen): Promise<void> {
    const stop = this.plan.stops[this.state.index];
    const { state, act, taken } = advance(this.plan, this.state, seen ?? (await this.seen()));
    this.state = state;
    if (taken !== null) this.taken.push(taken);
    if (act?.kind === 'set') await this.ports.controller.set?.(act.pressure, 'kPa', act.ratePerS);
    if (act?.kind === 'hold') await this.ports.controller.hold?.();
    if (act?.kind === 'vent') await this.ports.controller.vent?.();
    if (stop !== undefined && ['closing in', 'settling'].includes(state.phase)) {
      const past = (this.world.truth.applied - stop.applied) * (stop.direction === 'up' ? 1 : -1);
      this.worstPast = Math.max(this.worstPast, (past / 250) * 100);
    }
  }
  async untilSettling(): Promise<void> {
    while (this.state.phase !== 'settling') {
      await this.look();
      this.world.step(0.5);
      this.s += 0.5;
    }
  }
  /** Until it holds, is finished, or has taken so many points. */
  async go(points = Infinity, most = 3000, everyS = 0.5): Promise<void> {
    for (let looks = 0; looks < most; looks += 1) {
      await this.look();
      if (['held', 'finished'].includes(this.state.phase) || this.taken.length >= points) return;
      this.world.step(everyS);
      this.s += everyS;
    }
  }
}

/**
 * What each step takes in the same world by somebody who sees the truth: the pressure is set once, at the rate of the procedure,
 * and the point could be read as soon as the settle rule allows it, counted from when the pressure is there for good.
 */
export async function leastTime(plan: Plan): Promise<number> {
  const bench = new Bench([], plan);
  const { settle, inputSpan, approach } = plan;
  let least = 0;
  for (const { applied } of plan.stops) {
    await bench.ports.controller.set?.(applied, 'kPa', (approach.ratePercentPerS / 100) * inputSpan);
    let [nearS, thereS]: [number, number] = [Infinity, Infinity];
    for (let s = 0; s < 60; s += 0.1) {
      const off = (Math.abs(bench.world.truth.applied - applied) / inputSpan) * 100;
      nearS = off > 1 ? Infinity : Math.min(nearS, s);
      thereS = off > settle.bandPercent / 2 ? Infinity : Math.min(thereS, s);
      bench.world.step(0.1);
      bench.s += 0.1;
    }
    least += Math.max(thereS, nearS + settle.waitS) + settle.holdS;
  }
  return least;
}
