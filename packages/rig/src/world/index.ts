/**
 * A world: a source makes pressure, a line carries it, the instrument under test turns it into output, a loop turns that into
 * current and volts, meters and receivers read it. Deterministic by its seed and stepped in time, without a clock of its own.
 * What is shown is what a technician sees; the truth is apart, for whoever scores, and neither advice nor an automatic run may
 * look at it.
 */
import { makeChance, type Chance } from '../chance';
import { atInstrument, carried, shutIn } from '../line';
import { readLoop, type LoopReading, type Meter } from '../loop';
import { readReceiver, receive } from '../receiver';
import type { Settings } from '../smart';
import { legHead } from '../wet-leg';
import { plant, type Planted } from './faults';
import { soundParts, sourceOf, testedOf, USUAL_SPREAD, type Parts, type Spread } from './parts';
import { ControllerSource, type AnySource } from './source';
import { signalAt, SmartTested, type AnyTested } from './tested';

export { FAULTS, plant, type FaultName, type Planted } from './faults';
export {
  NO_SPREAD,
  soundController,
  soundParts,
  soundSmart,
  soundSurroundings,
  USUAL_SPREAD,
  type Parts,
  type SourceParts,
  type Spread,
  type TestedParts,
} from './parts';
export type { AnySource } from './source';
export type { AnyTested, SmartTested } from './tested';

/** What somebody at the bench sees. */
export interface Shown {
  /** At the reference, in the unit of the world, and whether it says that it stands. */
  readonly reference: number;
  readonly isStable: boolean;
  /** At the meter, mA; null where it shows nothing. */
  readonly meter: number | null;
  readonly terminalV: number | null;
  /** Across the resistor of the receiver. */
  readonly seriesV: number | null;
  readonly supplyV: number;
  /** The digital value of the instrument, and what is read at it; null where it has none. */
  readonly digital: number | null;
  readonly own: number | null;
  readonly receivers: readonly number[];
  readonly sensorC: number;
  readonly electronicsC: number;
}

const STEP_S = 0.1;

export class World<Source extends AnySource = AnySource, Tested extends AnyTested = AnyTested> {
  private carried = 0;
  private applied = 0;
  private receivers: readonly number[];
  private reading: LoopReading | null = null;
  /** What the valves of a hook-up give instead of the source; null where the source is connected. */
  private hooked: number | null = null;
  private meter: Meter | null;
  private filled: number;

  /** @param parts with source and instrument as they are made of them */
  constructor(
    readonly source: Source,
    readonly tested: Tested,
    private readonly parts: Parts,
    private readonly chance: Chance,
  ) {
    this.carried = source.made;
    this.receivers = parts.receivers.map(() => 0);
    this.meter = parts.loop.meter;
    this.filled = parts.leg?.filled ?? 0;
    this.step(STEP_S);
  }

  /** Lets time pass, in steps of at most a tenth of a second. */
  step(seconds: number): void {
    const whole = Math.max(1, Math.ceil(seconds / STEP_S - 1e-9));
    for (let count = 0; count < whole; count += 1) this.tick(seconds / whole);
  }

  get leads(): Meter | null {
    return this.meter;
  }
  /** Moves the leads of the meter; null takes it away and closes the loop where it stood. */
  rewire(meter: Meter | null): void {
    this.meter = meter;
  }
  /** Connects to the valves of a hook-up, and to what they give; null connects to the source again. */
  hook(pressure: number | null): void {
    this.hooked = pressure;
  }
  /** Another fill of the leg, share of its height. */
  fillLeg(share: number): void {
    this.filled = share;
  }

  get filledLeg(): number {
    return this.filled;
  }
  private legsAt(filled: number): number {
    const { leg, around } = this.parts;
    return leg === null ? 0 : legHead(leg.leg, filled) / around.unitPa;
  }
  /** What stands in the leg, in the unit of the world. */
  private get legs(): number {
    return this.legsAt(this.filled);
  }
  /** What stands in it when it is full. */
  get fullLegs(): number {
    return this.legsAt(1);
  }

  private tick(stepS: number): void {
    const { line, positionHead, temperatureC, stuckMilliamp } = this.parts;
    const loop = { ...this.parts.loop, meter: this.meter };
    const { source } = this;
    source.step(stepS);
    const isShutIn = source.kind === 'controller' && source.isShutIn;
    this.carried = isShutIn
      ? shutIn(line, this.carried, stepS)
      : carried(line, this.carried, source.made, stepS);
    if (isShutIn) source.follow(this.carried);
    this.applied = this.hooked ?? atInstrument(line, this.carried) - this.legs;
    this.tested.step({
      applied: this.applied + positionHead,
      stepS,
      normal: this.chance.normal(),
      temperatureC,
      supplyV: loop.supplyV,
    });
    if (this.tested.milliamp === null) return;
    const reading = readLoop(loop, stuckMilliamp ?? this.tested.milliamp, this.chance.uniform(0, 1));
    this.reading = reading;
    this.receivers = this.parts.receivers.map((receiver, index) =>
      // It takes the voltage across its resistor for one across 250 ohms.
      receive(receiver, this.receivers[index] ?? 0, (reading.seriesV / 250) * 1000, stepS),
    );
  }

  get shown(): Shown {
    return {
      reference: this.source.reference,
      isStable: this.source.isStable,
      meter: this.reading?.shown ?? null,
      terminalV: this.reading?.terminalV ?? null,
      seriesV: this.reading?.seriesV ?? null,
      supplyV: this.parts.loop.supplyV,
      digital: this.tested.digital,
      own: this.tested.own,
      receivers: this.parts.receivers.map((receiver, index) =>
        readReceiver(receiver, this.receivers[index] ?? 0),
      ),
      sensorC: this.parts.temperatureC,
      electronicsC: this.parts.electronicsC,
    };
  }

  /**
   * The current at rest with a pressure at its connection, as the instrument hangs and is set now, without noise; for the
   * scorer alone. Null of what sends none.
   */
  signalAt(applied: number): number | null {
    const { positionHead, stuckMilliamp } = this.parts;
    return stuckMilliamp ?? signalAt(this.tested, applied - this.legs + positionHead);
  }

  /** What is really applied, in the unit of the world, and what really flows. For the scorer alone. */
  get truth(): { readonly applied: number; readonly milliamp: number | null } {
    return { applied: this.applied, milliamp: this.reading?.milliamp ?? null };
  }
}

/** Two worlds of the same parts and seed are the same. */
export const worldOf = (parts: Parts, seed: number): World =>
  new World(sourceOf(parts), testedOf(parts), parts, makeChance(seed));

/** A controller and a smart transmitter. */
export type SmartWorld = World<ControllerSource, SmartTested>;

/** Two worlds of the same seed, settings and faults are the same. */
export function makeWorld(
  settings: Settings,
  seed: number,
  {
    planted = [],
    spread = USUAL_SPREAD,
  }: { readonly planted?: readonly Planted[]; readonly spread?: Spread } = {},
): SmartWorld {
  const parts = plant(soundParts(settings, seed, spread), planted);
  const { source, tested } = parts;
  if (source.kind !== 'controller' || tested.kind !== 'smart transmitter')
    throw new Error('A fault changed the kind of a part.');
  return new World(
    new ControllerSource(source.controller),
    new SmartTested(tested.smart, tested.settings),
    parts,
    makeChance(seed + 1),
  );
}
