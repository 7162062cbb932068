/** What a link and Barys say to each other, several times a second: values and readings one way, what to do the other. */
import type { Order, Phase, Plan } from '../automatic';
import type { Transfer } from '../signal';
import type { Channel, InstrumentAct, ReadSetup, Tried } from './port';
import type { End } from './wire';

export interface BeatValue {
  readonly device: string;
  readonly channel: Channel;
  /** What it says of itself; empty as long as it has not said it. */
  readonly model: string;
  readonly serial: string;
  readonly value: number | null;
  readonly unit: string;
  readonly raw: string;
  readonly isStable: boolean | null;
  readonly state: string;
  readonly trouble: string;
  /** ms of the epoch. */
  readonly at: number;
}

export interface BeatTaken {
  readonly automatic: number;
  readonly position: number;
  readonly clientKey: string;
  readonly appliedText: string;
  readonly outputText: string;
  readonly digitalText: string | null;
  /** What was read at the taps of a loop. */
  readonly taps: readonly { readonly key: string; readonly text: string; readonly raw: string }[];
  readonly raw: { readonly applied: string; readonly output: string; readonly digital: string };
  readonly takenAt: number;
  readonly isRepeat: boolean;
}

export interface Beat {
  readonly values: readonly BeatValue[];
  readonly taken: readonly BeatTaken[];
  /** What came of requests. */
  readonly answers: readonly { readonly id: number; readonly answer: RequestAnswer }[];
  readonly state: {
    readonly automatic: number;
    readonly doneOrder: number;
    readonly state: {
      readonly phase: Phase;
      readonly position: number | null;
      readonly words: string;
      readonly leftS: number | null;
    };
  } | null;
}

/** What a link has to do now. */
export interface Task {
  readonly automatic: number;
  readonly plan: Plan;
  /** Positions that have no reading. */
  readonly open: readonly number[];
  readonly devices: { readonly reference: string; readonly output: string; readonly digital: string | null };
  /** What reads the taps of a loop, in the order of the plan. */
  readonly taps: readonly TaskTap[];
  /** The last point that has a reading of a link; null where none has. */
  readonly lastTaken: number | null;
  /** Orders that were not obeyed yet. */
  readonly orders: readonly { readonly id: number; readonly name: Order }[];
  /** Why it stood held when it was last heard of; null where it did not. */
  readonly wasHeld: string | null;
  readonly doneOrder: number;
  /** Digits behind the point of what is kept of a reading. */
  readonly decimals: { readonly input: number; readonly output: number };
  /** What is set in the instrument: a simulated one takes it on. */
  readonly configuration: TaskConfiguration;
}

/** A tap of a loop at the bench. */
export interface TaskTap {
  readonly key: string;
  readonly device: string;
  readonly channel: Channel;
  /** What it is kept in; a receiver that shows per cent shows them of its scale. */
  readonly unit: string;
  readonly low: number;
  readonly high: number;
  readonly decimals: number;
}

export interface TaskConfiguration {
  /** Of the instrument. */
  readonly tag: string;
  readonly lrv: number;
  readonly urv: number;
  readonly inputUnit: string;
  readonly dampingS: number;
  readonly transferFunction: Transfer;
}

/** Something that is done once at an instrument, beside its readings. */
export type BenchRequest =
  | { readonly kind: 'trial' }
  /** A simulated instrument stands in for the one that is meant, as it has to be set. */
  | { readonly kind: 'set-up'; readonly configuration: TaskConfiguration }
  | { readonly kind: 'write'; readonly act: InstrumentAct; readonly serial: string };

export type RequestAnswer =
  | { readonly kind: 'trial'; readonly tried: readonly Tried[] }
  | { readonly kind: 'set-up'; readonly setup: ReadSetup }
  | { readonly kind: 'write'; readonly before: ReadSetup; readonly after: ReadSetup }
  /** Why it was not done. */
  | { readonly kind: 'trouble'; readonly words: string };

export interface BeatAnswer {
  /** Readings that Barys will never keep, and why. */
  readonly refused: readonly { readonly clientKey: string; readonly words: string }[];
  readonly task: Task | null;
  /** All that this link may open, and has to. */
  readonly ends: readonly End[];
  /** What somebody asks of an instrument. */
  readonly requests: readonly {
    readonly id: number;
    readonly device: string;
    readonly request: BenchRequest;
  }[];
}
