/** What a lesson is. */
import type { SettingKey, WantedSetup } from '@barys/core/setup';
import type { SignalRange } from '@barys/core/signal';
import type { PressureUnit } from '@barys/core/units';
import type { Reference } from '../../reference';
import type { World } from '../../world';
import type { Cause, Face, Lead } from '../acts';
import type { Process } from '../field';

/** An exchange of the body: the bodies in the store, and the steps in their order. */
export interface Swap {
  readonly bodies: readonly {
    readonly name: string;
    readonly upperLimit: number;
    readonly accuracyPercent: number;
  }[];
  readonly right: number;
  /** In their order; what some of them do to the instrument. */
  readonly steps: readonly { readonly words: string; readonly does?: 'off' | 'on' | 'out' | 'in' }[];
  /** The world with the body that was picked. */
  make(seed: number, body: number): World;
}

export interface Lesson {
  readonly id: string;
  readonly title: string;
  readonly brief: string;
  readonly range: SignalRange;
  readonly unit: PressureUnit;
  readonly outputUnit: string;
  /** Per cent of span, or of the reading, and of the limit. */
  readonly limitPercent: number;
  readonly limitOf: 'span' | 'reading';
  readonly adjustAbovePercent: number;
  /** Points, per cent of the range. */
  readonly points: readonly number[];
  /** Beyond this the reference is over-ranged, input unit. */
  readonly referenceLimit: number;
  readonly minutes: number;
  readonly hints: readonly string[];
  readonly reasoning: string;
  /** What is wrong. Hidden from the trainee. */
  readonly causes: readonly Cause[];
  /** A run at its points; the settings of a data sheet; an instrument brought back to service. */
  readonly task: 'run' | 'set-up' | 'service';
  /** Whether anything done at the bench can bring its errors inside the limit. */
  readonly isCurable: boolean;
  /** How the output is read. */
  readonly readBy: 'figures' | 'null meter' | 'needle' | 'meniscus';
  readonly readsDigital: boolean;
  /** Where the meter is at first, and whether its loop serves a process that must not lose it. */
  readonly lead: Lead;
  readonly isInService: boolean;
  readonly setup: WantedSetup | null;
  /** What of it the data sheet says; the rest is worked out. */
  readonly sheet: readonly SettingKey[];
  /** Whether it is read as found; what is exchanged or set anew was read before. */
  readonly hasAsFound: boolean;
  readonly face: Face;
  /** The process that it stays on; null at a bench. */
  readonly field: ((seed: number) => Process) | null;
  /** A reference for low pressures beside the first, and where it ends, input unit. */
  readonly second: { readonly fine: Reference; readonly fineLimit: number } | null;
  readonly swap: Swap | null;
  /** Where the seed chooses what is wrong: what it chose. */
  readonly hidden: ((seed: number) => Pick<Lesson, 'causes' | 'isCurable'>) | null;
  /** Two worlds of one seed are the same. */
  make(seed: number): World;
}

const FIVE = [0, 25, 50, 75, 100] as const;
export const RANGE: SignalRange = { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 };
/** What most lessons have. */
export const COMMON = {
  range: RANGE,
  unit: 'kPa',
  outputUnit: 'mA',
  limitPercent: 0.25,
  limitOf: 'span',
  adjustAbovePercent: 70,
  points: FIVE,
  referenceLimit: 150,
  task: 'run',
  isCurable: true,
  readBy: 'figures',
  readsDigital: false,
  lead: 'in series',
  isInService: false,
  setup: null,
  sheet: [],
  hasAsFound: true,
  face: { displayUnit: 'kPa', startView: 'pressure' },
  field: null,
  second: null,
  swap: null,
  hidden: null,
} as const satisfies Partial<Lesson>;
