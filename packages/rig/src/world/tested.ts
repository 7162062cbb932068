/** What stands at the end of the line, and what it makes of a pressure: each has the acts of its own. */
import { analogAtRest, outputOf, stepAnalog, turn, type Analog, type AnalogState } from '../analog';
import { dialAt, press, readDial, tap, type Dial, type DialState } from '../dial';
import {
  calibrate,
  digitalAtRest,
  readDigital,
  restore,
  wait,
  type DigitalGauge,
  type DigitalState,
  type PointName,
} from '../digital';
import {
  forceBalanceAtRest,
  signalOf,
  stepForceBalance,
  turnWheel,
  type ForceBalance,
  type ForceBalanceState,
} from '../force-balance';
import { analogOf, gaugeAt, stepGauge, type LevelGauge, type LevelGaugeState } from '../level-gauge';
import {
  currentOf,
  displayOf,
  fromFactory,
  processValue,
  stepSmart,
  type Settings,
  type Smart,
} from '../smart';
import { bridgeOf, capacitanceOf, shownOf, type Capacitance, type Gas, type HeatLoss } from '../vacuum';

export interface Moment {
  /** In the unit of the world. */
  readonly applied: number;
  readonly stepS: number;
  /** A standard normal draw, for the noise. */
  readonly normal: number;
  readonly temperatureC: number;
  readonly supplyV: number;
}

/** Long beside any damping, s. */
const AT_REST_S = 3600;

interface Tested {
  step(moment: Moment): void;
  /** What it would send through a loop, mA; null of what has none. */
  readonly milliamp: number | null;
  /** The digital value of its sensor, in the unit of the world; null of what has none. */
  readonly digital: number | null;
  /** What is read at it: a display, a needle, a pneumatic signal. */
  readonly own: number | null;
}

export class SmartTested implements Tested {
  readonly kind = 'smart transmitter';
  state;
  constructor(
    readonly smart: Smart,
    settings: Settings,
  ) {
    this.state = fromFactory(settings);
  }
  step({ applied, stepS, normal, temperatureC }: Moment): void {
    this.state = stepSmart(this.smart, this.state, { applied, stepS, normal, temperatureC });
  }
  get milliamp(): number {
    return currentOf(this.smart, this.state);
  }
  signalAt(applied: number): number {
    const still = { ...this.smart, sensor: { ...this.smart.sensor, noise: { sigma: 0, tauS: 0 } } };
    const state = stepSmart(
      still,
      { ...this.state, noise: 0, held: null },
      { applied, stepS: AT_REST_S, normal: 0 },
    );
    return currentOf(still, state);
  }
  get digital(): number {
    return processValue(this.state);
  }
  get own(): number {
    return displayOf(this.state);
  }
}

export class AnalogTested implements Tested {
  readonly kind = 'analog transmitter';
  state: AnalogState = analogAtRest();
  readonly digital = null;
  readonly own = null;
  constructor(readonly analog: Analog) {}
  turn(turns: { readonly zero?: number; readonly span?: number }): void {
    this.state = turn(this.analog, this.state, turns);
  }
  step({ applied, stepS, normal, temperatureC, supplyV }: Moment): void {
    this.state = stepAnalog(this.analog, this.state, { applied, stepS, normal }, { temperatureC, supplyV });
  }
  get milliamp(): number {
    return outputOf(this.analog, this.state);
  }
  signalAt(applied: number): number {
    const still = { ...this.analog, noise: { sigma: 0, tauS: 0 } };
    const state = stepAnalog(still, { ...this.state, noise: 0 }, { applied, stepS: AT_REST_S, normal: 0 });
    return outputOf(still, state);
  }
}

export class ForceBalanceTested implements Tested {
  readonly kind = 'force balance';
  state: ForceBalanceState = forceBalanceAtRest();
  readonly milliamp = null;
  readonly digital = null;
  constructor(
    readonly balance: ForceBalance,
    private readonly range: { readonly lrv: number; readonly urv: number },
    /** Of the air, over the usual one. */
    private readonly supply: number,
  ) {}
  turn(turns: { readonly wheel?: number; readonly zero?: number }): void {
    this.state = turnWheel(this.state, turns);
  }
  step({ applied, stepS }: Moment): void {
    const x = (applied - this.range.lrv) / (this.range.urv - this.range.lrv);
    this.state = stepForceBalance(this.balance, this.state, { x, stepS, supply: this.supply });
  }
  get own(): number {
    return signalOf(this.balance, this.state);
  }
  signalAt(applied: number): number {
    const x = (applied - this.range.lrv) / (this.range.urv - this.range.lrv);
    const { balance, supply } = this;
    return signalOf(balance, stepForceBalance(balance, this.state, { x, stepS: AT_REST_S, supply }));
  }
}

export class DialTested implements Tested {
  readonly kind = 'dial gauge';
  state: DialState;
  readonly milliamp = null;
  readonly digital = null;
  constructor(readonly dial: Dial) {
    this.state = dialAt(dial);
  }
  tap(): void {
    this.state = tap(this.dial, this.state);
  }
  /** Tapped, and without what the eye is off by. */
  signalAt(applied: number): number {
    const exact = { ...this.dial, loop: 0, parallax: 0, division: 1e-9 };
    return readDial(exact, tap(exact, press(exact, this.state, applied)));
  }
  step({ applied }: Moment): void {
    this.state = press(this.dial, this.state, applied);
  }
  get own(): number {
    return readDial(this.dial, this.state);
  }
}

export class DigitalTested implements Tested {
  readonly kind = 'digital gauge';
  state: DigitalState;
  readonly milliamp = null;
  private applied = 0;
  constructor(readonly gauge: DigitalGauge) {
    this.state = digitalAtRest(gauge);
  }
  /** Calibrates a point at what is applied now. */
  calibrate(point: PointName, said: number): 'done' | 'not steady yet' {
    const next = calibrate(this.gauge, this.state, point, { applied: this.applied, said });
    if (typeof next === 'string') return next;
    this.state = next;
    return 'done';
  }
  /** Brings back the values it left the factory with, or those before the last calibration in the field. */
  restore(set: 'factory' | 'last field'): void {
    this.state = restore(this.gauge, this.state, set);
  }
  signalAt(applied: number): number {
    return readDigital(this.gauge, this.state, applied);
  }
  step({ applied, stepS }: Moment): void {
    // It stands as long as nothing moves by more than its last digit.
    const isSteady = Math.abs(applied - this.applied) < this.gauge.resolution;
    this.state = isSteady ? wait(this.state, stepS) : { ...this.state, steadyS: 0 };
    this.applied = applied;
  }
  get own(): number {
    return readDigital(this.gauge, this.state, this.applied);
  }
  get digital(): number {
    return this.own;
  }
}

export class LevelTested implements Tested {
  readonly kind = 'level gauge';
  state: LevelGaugeState;
  constructor(
    readonly gauge: LevelGauge,
    /** Height for one unit of the world. */
    private readonly perUnit: number,
  ) {
    this.state = gaugeAt(gauge);
  }
  step({ applied, stepS }: Moment): void {
    this.state = stepGauge(this.gauge, this.state, applied * this.perUnit, stepS);
  }
  get milliamp(): number {
    return analogOf(this.gauge, this.state);
  }
  signalAt(applied: number): number {
    return analogOf(this.gauge, stepGauge(this.gauge, this.state, applied * this.perUnit, AT_REST_S));
  }
  get own(): number {
    return this.state.display;
  }
  get digital(): number {
    return this.state.output / this.perUnit;
  }
}

/** Vacuum gauges read absolute pressures; a world of theirs is absolute. */
export class HeatLossTested implements Tested {
  readonly kind = 'heat-loss gauge';
  readonly milliamp = null;
  readonly digital = null;
  private volt = 0;
  private temperatureC = 20;
  private zeroV: number;
  /** What its span multiplies a reading by. */
  private span = 1;
  constructor(
    readonly gauge: HeatLoss,
    private readonly gas: Gas,
    private readonly unitPa: number,
  ) {
    this.zeroV = gauge.v0;
  }
  /** Takes what its bridge says now for no pressure. */
  zero(): void {
    this.zeroV = this.volt;
  }
  /** As if its zero had been taken at a pressure, in the unit of the world. */
  zeroAt(applied: number): void {
    this.zeroV = this.voltAt(applied);
  }
  /** Takes what is there for what is said to be there; where the curve is flat it has nothing to hold on to. */
  spanAt(said: number): 'done' | 'no span' {
    const plain = shownOf(this.gauge, this.volt, this.zeroV) / this.unitPa;
    if (!(plain > 0) || !Number.isFinite(plain) || !(said > 0)) return 'no span';
    this.span = said / plain;
    return 'done';
  }
  /** Span as it came, but for what somebody set since. */
  setSpan(span: number): void {
    this.span = span;
  }
  private voltAt(applied: number): number {
    return bridgeOf(this.gauge, applied * this.unitPa, { gas: this.gas, temperatureC: this.temperatureC });
  }
  signalAt(applied: number): number {
    return this.shown(this.voltAt(applied));
  }
  step({ applied, temperatureC }: Moment): void {
    this.temperatureC = temperatureC;
    this.volt = this.voltAt(applied);
  }
  private shown(volt: number): number {
    return (shownOf(this.gauge, volt, this.zeroV) / this.unitPa) * this.span;
  }
  get own(): number {
    return this.shown(this.volt);
  }
}

export class CapacitanceTested implements Tested {
  readonly kind = 'capacitance gauge';
  readonly milliamp = null;
  private shown = 0;
  private onS = 0;
  constructor(
    readonly gauge: Capacitance,
    private readonly unitPa: number,
  ) {}
  step({ applied, stepS }: Moment): void {
    this.onS += stepS;
    this.shown = capacitanceOf(this.gauge, applied * this.unitPa, this.onS) / this.unitPa;
  }
  /** As warm as it is by now. */
  signalAt(applied: number): number {
    return capacitanceOf(this.gauge, applied * this.unitPa, this.onS) / this.unitPa;
  }
  get own(): number {
    return this.shown;
  }
  get digital(): number {
    return this.shown;
  }
}

export type AnyTested =
  | SmartTested
  | AnalogTested
  | ForceBalanceTested
  | DialTested
  | DigitalTested
  | LevelTested
  | HeatLossTested
  | CapacitanceTested;

/** The signal at rest with a pressure applied, as it is set now and without noise: for a scorer alone; null of what sends none. */
export const signalAt = (tested: AnyTested, applied: number): number | null =>
  'signalAt' in tested ? tested.signalAt(applied) : null;
