/**
 * A differential body on its process, behind a manifold of three valves: each side has the pressure of what it is open to, and
 * keeps it where it is shut in. The process sets a side before any vent does; through an open equaliser both sides are alike.
 * Hydrostatics; the model of what is wrong with a state is the hook-up's own.
 */
import {
  faultInWords,
  inService,
  lacksOf,
  moveValve,
  type Arrangement,
  type HookUpState,
  type ValveMove,
} from '@barys/core/hookup';
import { legAfter, type WetLeg } from '../wet-leg';

export interface Process {
  readonly arrangement: Arrangement;
  /** Static pressure, and the head of the liquid over the high side tap, in the unit of the bench. */
  readonly staticPressure: number;
  readonly head: number;
  readonly leg: WetLeg;
}

/** Filling a leg by hand, s. */
const FILLING_S = 120;

export class Field {
  state: HookUpState;
  filled: number;
  /** Until when it is being filled by hand, s of the bench; the leg is full then. */
  private fillingS: number | null = null;
  private high = 0;
  private low = 0;

  /** @param legFull head of the full leg, in the unit of the bench */
  constructor(
    readonly process: Process,
    filled: number,
    private readonly legFull: number,
  ) {
    this.state = inService(process.arrangement);
    this.filled = filled;
  }

  /** Moves a valve. @returns what is wrong now that was not before, in words */
  move(move: ValveMove): string[] {
    const { arrangement } = this.process;
    const { state, faults } = moveValve(arrangement, this.state, move);
    this.state = state;
    // Pressure follows a valve at once, also where two of them are moved in one moment.
    this.settle();
    return faults.map((fault) => faultInWords(arrangement, fault));
  }

  private isOpen(valve: ValveMove['valve']): boolean {
    return this.state.valves[valve] === 'open';
  }

  /** Whether the leg is open to a vent or to the other side. */
  get isLegOpen(): boolean {
    return this.isOpen('low-block') && (this.isOpen('equaliser') || this.isOpen('vent-low'));
  }

  /** Begins to fill the leg by hand. @returns why not, or null */
  fill(): string | null {
    if (this.isLegOpen) return 'it runs out as fast as it is filled';
    this.fillingS = FILLING_S;
    return null;
  }
  get isFilling(): boolean {
    return this.fillingS !== null;
  }

  /** What still keeps it from being in service. */
  get lacks(): number {
    return lacksOf(this.process.arrangement, this.state, 'in-service').length;
  }

  /** Lets time pass. @returns the differential pressure at the body */
  step(seconds: number): number {
    const { leg } = this.process;
    if (this.fillingS !== null && !this.isLegOpen) {
      this.fillingS -= seconds;
      if (this.fillingS <= 0) {
        this.fillingS = null;
        this.filled = 1;
      }
    }
    this.filled = legAfter(leg, this.filled, {
      isEqualised: this.isLegOpen,
      isSteaming: this.isOpen('low-block'),
      stepS: seconds,
    });
    return this.settle();
  }

  /** The pressures of both sides as the valves stand. @returns how they differ */
  private settle(): number {
    const { staticPressure, head } = this.process;
    // A body that sees pressure on one side alone has the other at the air's.
    const above = this.isOpen('high-block') ? staticPressure + head : this.isOpen('vent-high') ? 0 : null;
    const below = this.isOpen('low-block')
      ? staticPressure + this.filled * this.legFull
      : this.isOpen('vent-low')
        ? 0
        : null;
    if (this.isOpen('equaliser')) {
      const known = [above, below].filter((one) => one !== null);
      this.high = this.low = known.length === 0 ? (this.high + this.low) / 2 : Math.max(...known);
      return 0;
    }
    this.high = above ?? this.high;
    this.low = below ?? this.low;
    return this.high - this.low;
  }
}
