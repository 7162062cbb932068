/** What an automatic run has to do, and what it sees. One unit for all pressures: that of the input range. */
import type { Direction, Sample } from '../procedure';

export interface PlannedStop {
  /** Place in the run. */
  readonly position: number;
  readonly direction: Direction;
  readonly applied: number;
}

export interface Plan {
  readonly stops: readonly PlannedStop[];
  readonly unit: string;
  /** Absolute spans of input and output. */
  readonly inputSpan: number;
  readonly outputSpan: number;
  /** Absolute spans of the taps that are read beside the output, each in its own unit. */
  readonly taps?: readonly { readonly key: string; readonly span: number }[];
  readonly settle: {
    /** Seconds after a step before the output is looked at. */
    readonly waitS: number;
    /** Seconds that reference and output have to stand. */
    readonly holdS: number;
    /** Full width in which they stand, per cent of span. */
    readonly bandPercent: number;
  };
  readonly approach: {
    /** Fastest change of the pressure, per cent of the input span a second. */
    readonly ratePercentPerS: number;
    /** How far the pressure may go past a point before it has come from the wrong side, per cent of span. */
    readonly overshootPercent: number;
  };
  /** What becomes of the pressure when nobody hears of the run. */
  readonly onLoss: 'hold' | 'vent';
  /** Whether a person works the pressure: it is watched then, and nothing is set. */
  readonly isByHand: boolean;
  /** Ends of the reference’s range. */
  readonly reference: { readonly low: number; readonly high: number };
  /** Whether the output is a current whose ends say failure. */
  readonly isCurrent: boolean;
  /** Longest time for one point, s. */
  readonly patienceS: number;
  /** A value that is older is no value. */
  readonly staleS: number;
}

export interface Value extends Sample {
  /** Whether the instrument says that it stands; null of one that says nothing of it. */
  readonly isStable: boolean | null;
}

/** What is seen at a moment; null is what cannot be read just now. All times in s of one clock. */
export interface Seen {
  readonly s: number;
  readonly reference: Value | null;
  /** In the unit of the output. */
  readonly output: Value | null;
  /** In the unit of the input; null where the run has no such column, too. */
  readonly digital: Value | null;
  /** At the taps, in the order of the plan. */
  readonly taps?: readonly (Value | null)[];
  /** What an instrument says is wrong with it, in words. */
  readonly alarm: string | null;
}

/** Common practice. */
export const OVERSHOOT_PERCENT = 0.1;
/** Where the procedure says nothing of it. Common practice. */
export const USUAL_APPROACH = { ratePercentPerS: 5, onLoss: 'hold' } as const;
/** A point that takes longer than its settling by this is looked at by a person. */
export const PATIENCE_S = 180;
export const STALE_S = 2;
