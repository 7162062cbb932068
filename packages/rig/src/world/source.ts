/** What makes the pressure of a world: each has the acts of its own, and shows what its reference shows. */
import { adjust, afterwards, lineAtRest, pressureOf, stroke, type Line as AirLine } from '../air';
import { manifoldAt, pumped, type Manifold, type ManifoldState } from '../manifold';
import { shownBy, type Reference } from '../reference';
import {
  control,
  controllerAtRest,
  isStable,
  madeBy,
  regulated,
  sunk,
  weighed,
  type Controller,
  type ControllerState,
  type Deadweight,
  type DeadweightState,
  type Regulator,
} from '../sources';

/** All pressures in the unit of the world, gauge; an absolute world says so by an ambient of 0. */
interface Source {
  step(seconds: number): void;
  /** What it really makes. */
  readonly made: number;
  /** What its reference shows, and whether it says that this stands. */
  readonly reference: number;
  readonly isStable: boolean;
}

export class ControllerSource implements Source {
  readonly kind = 'controller';
  private state: ControllerState = controllerAtRest;
  private wanted = 0;
  private ratePerS: number;
  isShutIn = false;
  constructor(private readonly controller: Controller) {
    this.ratePerS = controller.ratePerS;
  }
  /** @param ratePerS fastest change; as quick as it can where nothing is said */
  set(pressure: number, ratePerS: number | null = null): void {
    this.wanted = pressure;
    this.ratePerS = Math.min(ratePerS ?? Infinity, this.controller.ratePerS);
    this.isShutIn = false;
  }
  vent(): void {
    this.set(0);
  }
  /** Shuts in what is there: it controls no more and only shows. */
  hold(): void {
    this.isShutIn = true;
  }
  /** What its own sensor sees of a line that is shut in. */
  follow(pressure: number): void {
    const x = pressure * (1 + this.controller.gain) + this.controller.offset;
    this.state = { x, v: 0, ramp: x, insideS: 0 };
  }
  step(seconds: number): void {
    if (this.isShutIn) return;
    const { controller, ratePerS } = this;
    this.state = control({ ...controller, ratePerS }, this.state, this.wanted, seconds);
  }
  get made(): number {
    return madeBy(this.controller, this.state);
  }
  get reference(): number {
    return this.state.x;
  }
  get isStable(): boolean {
    return isStable(this.controller, this.state);
  }
}

/** What is read beside a source that shows nothing by itself; it says nothing of standing still. */
abstract class ReadSource {
  readonly isStable = false;
  constructor(private readonly gauge: Reference) {}
  abstract readonly made: number;
  get reference(): number {
    return shownBy(this.gauge, this.made);
  }
}

export interface Surrounding {
  /** Pascals in one unit of the world, and the pressure of the air, Pa. */
  readonly unitPa: number;
  readonly ambientPa: number;
}

export class PumpSource extends ReadSource implements Source {
  readonly kind = 'pump';
  private state;
  constructor(
    private readonly air: AirLine,
    gauge: Reference,
    private readonly around: Surrounding,
  ) {
    super(gauge);
    this.state = lineAtRest(air, around.ambientPa);
  }
  stroke(): void {
    this.state = stroke(this.air, this.state, this.around.ambientPa);
  }
  /** Turns the fine adjuster inwards. */
  adjust(turns: number): void {
    this.state = adjust(this.air, this.state, turns);
  }
  /** 0 shut to 1 open. */
  vent(open: number): void {
    this.state = { ...this.state, vent: open };
  }
  step(seconds: number): void {
    this.state = afterwards(this.air, this.state, this.around.ambientPa, seconds);
  }
  get made(): number {
    return (pressureOf(this.air, this.state) - this.around.ambientPa) / this.around.unitPa;
  }
}

export class RegulatorSource extends ReadSource implements Source {
  readonly kind = 'regulator';
  private turns = 0;
  private shutForS = 0;
  constructor(
    private readonly regulator: Regulator,
    gauge: Reference,
  ) {
    super(gauge);
  }
  /** Where the knob stands, turns from shut. */
  knob(turns: number): void {
    this.turns = turns;
    this.shutForS = 0;
  }
  step(seconds: number): void {
    this.shutForS += seconds;
  }
  get made(): number {
    return regulated(this.regulator, this.turns, { shutForS: this.shutForS });
  }
}

export class DeadweightSource implements Source {
  readonly kind = 'deadweight tester';
  private state: DeadweightState;
  private nominal = 0;
  private way: 1 | -1 = 1;
  constructor(private readonly deadweight: Deadweight) {
    this.state = { height: deadweight.float / 2, spin: 0 };
  }
  load(nominal: number): void {
    this.way = nominal >= this.nominal ? 1 : -1;
    this.nominal = nominal;
  }
  /** Pumps the piston into the middle of its float. */
  lift(): void {
    this.state = { ...this.state, height: this.deadweight.float / 2 };
  }
  spin(): void {
    this.state = { ...this.state, spin: 1 };
  }
  step(seconds: number): void {
    this.state = sunk(this.deadweight, this.state, seconds);
  }
  get made(): number {
    return weighed(this.deadweight, this.state, this.nominal, this.way) ?? 0;
  }
  /** What the weights stand for: whether the piston floats and turns is for who watches it. */
  get reference(): number {
    return this.nominal;
  }
  get isStable(): boolean {
    return this.state.spin > 0.05 && weighed(this.deadweight, this.state, this.nominal, this.way) !== null;
  }
}

export class ManifoldSource extends ReadSource implements Source {
  readonly kind = 'manifold';
  state: ManifoldState;
  constructor(
    private readonly manifold: Manifold,
    gauge: Reference,
    private readonly around: Surrounding,
  ) {
    super(gauge);
    this.state = manifoldAt(around.ambientPa);
  }
  change(patch: Partial<Omit<ManifoldState, 'pressurePa'>>): void {
    this.state = { ...this.state, ...patch };
  }
  step(seconds: number): void {
    this.state = pumped(this.manifold, this.state, seconds);
  }
  /** Absolute. */
  get made(): number {
    return this.state.pressurePa / this.around.unitPa;
  }
}

export type AnySource = ControllerSource | PumpSource | RegulatorSource | DeadweightSource | ManifoldSource;
