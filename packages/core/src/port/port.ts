/**
 * An instrument at the other end, however it is reached: simulated in memory, or over a wire. A job and an automatic run know
 * no more of it than this.
 */

export interface Identity {
  readonly maker: string;
  readonly model: string;
  readonly serial: string;
  readonly firmware: string;
}

/** What can be read: a port has some of them. */
export const CHANNELS = ['pressure', 'current', 'voltage', 'digital value', 'display'] as const;
export type Channel = (typeof CHANNELS)[number];

export interface PortValue {
  readonly value: number;
  /** As the port writes it; whoever takes a value converts it, and refuses a unit that cannot be. */
  readonly unit: string;
  /** When it was measured, ms of the epoch by the clock of whoever read it. */
  readonly at: number;
  /** Whether the instrument says that it stands; null of one that says nothing of it. */
  readonly isStable: boolean | null;
  /** What came over the wire, as it came. */
  readonly raw: string;
}

export type PortState =
  | 'measuring'
  | 'controlling'
  | 'holding'
  | 'vented'
  | 'fixed current'
  | 'alarm'
  | 'away';

/** What can be read of an instrument's settings over a link; null is what it does not say. */
export interface ReadSetup {
  readonly tag: string;
  /** Its own number, which no technician gives. */
  readonly serial: string;
  readonly unit: string;
  readonly lrv: number;
  readonly urv: number;
  readonly dampingS: number;
  readonly transfer: 'linear' | 'square-root' | null;
  readonly isProtected: boolean;
  /** Its digital value, in its unit. */
  readonly value: number;
  /** mA, as it believes it to be, and whether that is held at a figure. */
  readonly milliamp: number;
  readonly isFixed: boolean;
  /** Temperatures among its other variables, °C, in their order, and a voltage: which they are, its manual says. */
  readonly temperaturesC: readonly number[];
  readonly volts: number | null;
}

/** What can be changed at an instrument over a link. Sensor trims are left to the instrument's own tool. */
export type InstrumentAct =
  | { readonly kind: 'zero trim' }
  /** What a meter measures while the loop is fixed there, mA. */
  | { readonly kind: 'output trim'; readonly at: 4 | 20; readonly measured: number }
  /** Holds the loop at a current, mA; null lets it go. */
  | { readonly kind: 'fixed current'; readonly milliamp: number | null }
  | { readonly kind: 'damping'; readonly seconds: number }
  | { readonly kind: 'range'; readonly lrv: number; readonly urv: number; readonly unit: string }
  | { readonly kind: 'unit'; readonly unit: string }
  | { readonly kind: 'transfer function'; readonly transfer: 'linear' | 'square-root' };

/** One question of a trial, and what came. */
export interface Tried {
  /** What it was for, in words. */
  readonly what: string;
  readonly asked: string;
  /** As it came; empty where nothing did. */
  readonly answered: string;
  /** What was understood, in words; what is wrong, where something is. */
  readonly words: string;
  readonly isGood: boolean;
}

export interface Port {
  readonly channels: readonly Channel[];
  identify(): Promise<Identity>;
  /** @throws Error naming what came instead, where it is no value of this channel */
  read(channel: Channel): Promise<PortValue>;
  /**
   * Drives a pressure. Only a port that controls one has it.
   * @param ratePerS fastest change, in the unit; as the instrument likes where nothing is said
   */
  readonly set?: (value: number, unit: string, ratePerS: number | null) => Promise<void>;
  /** Shuts the pressure in as it is. */
  readonly hold?: () => Promise<void>;
  readonly vent?: () => Promise<void>;
  /** Its settings, of an instrument that can tell them. */
  readonly readSetup?: () => Promise<ReadSetup>;
  /**
   * Changes something at it, and reads it before and after.
   * @param serial of the instrument that is meant
   * @throws Error where another one is there, or it refuses
   */
  readonly write?: (
    act: InstrumentAct,
    serial: string,
  ) => Promise<{ readonly before: ReadSetup; readonly after: ReadSetup }>;
  /** Asks each of its questions once, and tells what came. */
  readonly tryOut?: () => Promise<readonly Tried[]>;
  state(): Promise<PortState>;
  close(): Promise<void>;
}
