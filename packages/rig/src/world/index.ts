/**
 * A world: a controller makes pressure, a line that may leak or be plugged carries it, a smart transmitter turns it into current, a loop carries that to a
 * meter and a receiver. Deterministic by its seed and stepped in time, without a clock of its own. What is shown is what a
 * technician sees; the truth is apart, for whoever scores, and neither advice nor an automatic run may look at it.
 */
import { makeChance, type Chance } from '../chance';
import { lagged } from '../lag';
import { readLoop, type LoopReading } from '../loop';
import { readReceiver, receive } from '../receiver';
import { currentOf, displayOf, fromFactory, processValue, stepSmart, type SmartState } from '../smart';
import { control, controllerAtRest, isStable, madeBy, type ControllerState } from '../sources';
import { FAULTS, type FaultName } from './faults';
import { soundParts, USUAL_SPREAD, type Parts, type Spread } from './parts';
import type { Settings } from '../smart';

export { FAULTS, type FaultName } from './faults';
export { NO_SPREAD, USUAL_SPREAD, type Parts, type Spread } from './parts';

export interface Planted {
  readonly fault: FaultName;
  /** In the unit of the fault; its usual size where nothing is said. */
  readonly size?: number;
}

/** What somebody at the bench sees. */
export interface Shown {
  /** At the reference, in the input unit, and whether it says that it stands. */
  readonly reference: number;
  readonly isStable: boolean;
  /** At the meter, mA; null where it shows nothing. */
  readonly meter: number | null;
  readonly terminalV: number;
  /** The transmitter’s own digital value and display. */
  readonly digital: number;
  readonly display: number;
  readonly receiver: number;
}

export interface World {
  /** Sets a pressure, in the input unit. */
  set(pressure: number): void;
  vent(): void;
  /** Lets time pass, in steps of at most a tenth of a second. */
  step(seconds: number): void;
  readonly shown: Shown;
  /** What is really applied, in the input unit. For the scorer alone. */
  readonly truth: { readonly applied: number; readonly milliamp: number };
  readonly transmitter: SmartState;
  /** Puts what was written to the transmitter in its place. */
  write(state: SmartState): void;
}

const STEP_S = 0.1;

class SteppedWorld implements World {
  private controller: ControllerState = controllerAtRest;
  private wanted = 0;
  private atInstrument = 0;
  private receiver = 0;
  private reading: LoopReading;
  transmitter: SmartState;

  constructor(
    private readonly parts: Parts,
    private readonly chance: Chance,
  ) {
    this.transmitter = fromFactory(parts.settings);
    this.reading = readLoop(parts.loop, 4);
    this.step(STEP_S);
  }

  set(pressure: number): void {
    this.wanted = pressure;
  }

  vent(): void {
    this.wanted = 0;
  }

  step(seconds: number): void {
    const whole = Math.max(1, Math.ceil(seconds / STEP_S - 1e-9));
    for (let count = 0; count < whole; count += 1) this.tick(seconds / whole);
  }

  private tick(stepS: number): void {
    const { controller, smart, loop, receiver, positionHead, pluggedS, stuckMilliamp, leakS } = this.parts;
    this.controller = control(controller, this.controller, this.wanted, stepS);
    // It makes up for a leak as far as it is quick; what is lost on the way is what the instrument sees less.
    const kept = 1 - Math.min(0.5, 1 / (controller.omega * leakS));
    const made = madeBy(controller, this.controller) * kept;
    this.atInstrument = lagged(this.atInstrument, made, pluggedS, stepS);
    this.transmitter = stepSmart(smart, this.transmitter, {
      applied: this.atInstrument + positionHead,
      stepS,
      normal: this.chance.normal(),
    });
    const wanted = stuckMilliamp ?? currentOf(smart, this.transmitter);
    this.reading = readLoop(loop, wanted, this.chance.uniform(0, 1));
    // The receiver takes the voltage across its resistor for one across 250 ohms.
    this.receiver = receive(receiver, this.receiver, (this.reading.seriesV / 250) * 1000, stepS);
  }

  get shown(): Shown {
    return {
      reference: this.controller.x,
      isStable: isStable(this.parts.controller, this.controller),
      meter: this.reading.shown,
      terminalV: this.reading.terminalV,
      digital: processValue(this.transmitter),
      display: displayOf(this.transmitter),
      receiver: readReceiver(this.parts.receiver, this.receiver),
    };
  }

  get truth() {
    return { applied: this.atInstrument, milliamp: this.reading.milliamp };
  }

  write(state: SmartState): void {
    this.transmitter = state;
  }
}

/** Two worlds of the same seed, settings and faults are the same. */
export function makeWorld(
  settings: Settings,
  seed: number,
  {
    planted = [],
    spread = USUAL_SPREAD,
  }: { readonly planted?: readonly Planted[]; readonly spread?: Spread } = {},
): World {
  const parts = planted.reduce(
    (so, { fault, size }) => FAULTS[fault].plant(so, size ?? FAULTS[fault].usual),
    soundParts(settings, seed, spread),
  );
  return new SteppedWorld(parts, makeChance(seed + 1));
}
