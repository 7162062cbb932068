/** What a trainee does at the bench, one by one; with their times they are the whole record of an attempt. */
import type { ValveMove } from '@barys/core/hookup';
import type { StartView } from '@barys/core/setup';
import type { PointName } from '../digital';
import type { Settings } from '../smart';

/** What can be wrong, in the trade's words; what a trainee names and a lesson hides. */
export const CAUSES = {
  nothing: 'nothing is wrong',
  'zero off': 'the zero has moved',
  'span off': 'the span is off',
  'sensor off': 'the sensor is off',
  'output off': 'the output stage is off',
  'range wrong': 'another range is set in it',
  'density wrong': 'the range is set for another density',
  'body too small': 'the body does not reach the new range',
  'field values wrong': 'the gauge holds wrong values from a calibration in the field',
  'body tilted': 'the body hangs tilted since its zero',
  'root twice': 'the root is taken twice',
  'root missing': 'the root is not taken',
  'linkage bent': 'the linkage is bent',
  friction: 'something rubs and sticks',
  'air supply bad': 'the air supply is wet',
  'line plugged': 'a line answers slowly',
  leak: 'the line leaks',
  'gas trapped': 'a bubble stands in the line',
  'leg lost': 'the wet leg has lost its fill',
  'leg fill wrong': 'the wet leg holds another liquid',
  'supply low': 'the supply is too low for the loop',
  'terminal corroded': 'a terminal is corroded',
  'output stuck': 'the output stands still',
  'receiver wrong': 'the receiver is wrong, the transmitter is right',
  'reference off': 'the reference is off',
  'not warm yet': 'it is not warm yet',
} as const;
export type Cause = keyof typeof CAUSES;

export type Pass = 'as found' | 'as left';
export type Way = 'up' | 'down';

/** What an instrument shows of itself, beside what it measures. */
export interface Face {
  readonly displayUnit: string;
  readonly startView: StartView;
}

/** What is told to a smart transmitter, by a communicator or at its own menu. */
export type Command =
  | { readonly kind: 'zero trim' }
  | { readonly kind: 'sensor trim'; readonly end: 'lower' | 'upper'; readonly applied: number }
  | { readonly kind: 'output trim'; readonly at: 4 | 20; readonly measured: number }
  | { readonly kind: 'hold'; readonly milliamp: number | null }
  | { readonly kind: 'set'; readonly settings: Partial<Settings> }
  | { readonly kind: 'face'; readonly face: Partial<Face> };

/** Where the leads of the meter are, and which jack they are in. */
export const LEADS = ['off', 'in series', 'across the test terminals', 'across the supply'] as const;
export type Lead = (typeof LEADS)[number];
export type Jack = 'current' | 'voltage';

/** What was read, as it was written down: an eye and a hand can be wrong. */
export interface Wrote {
  readonly applied: number;
  readonly output: number;
  /** As it was typed, with what was read beside the output by its column. */
  readonly typed?: {
    readonly applied: string;
    readonly output: string;
    readonly more: Readonly<Partial<Record<'before-tap' | 'digital' | 'second', string>>>;
  };
}

export type Act =
  | { readonly do: 'stroke' }
  | { readonly do: 'fine'; readonly turns: number }
  | { readonly do: 'vent'; readonly open: number }
  | { readonly do: 'pressure'; readonly to: number }
  | { readonly do: 'turn'; readonly screw: 'zero' | 'span'; readonly turns: number }
  | { readonly do: 'tap' }
  /** A digital gauge takes what is applied for what is said, or brings back what it held. */
  | { readonly do: 'take'; readonly point: PointName; readonly said: number }
  | { readonly do: 'restore'; readonly set: 'factory' | 'last field' }
  /** A vacuum gauge takes what is there for nothing, or for what is said. */
  | { readonly do: 'gauge zero' }
  | { readonly do: 'gauge span'; readonly said: number }
  /** Pumps of a manifold, its valve to them and its bleed. */
  | {
      readonly do: 'manifold';
      readonly rotary?: boolean;
      readonly diffusion?: boolean;
      readonly valve?: number;
      readonly bleed?: number;
    }
  | { readonly do: 'tell'; readonly command: Command }
  /** The two keys and the wheel of a transmitter’s own menu. */
  | { readonly do: 'wheel'; readonly clicks: number }
  | { readonly do: 'key'; readonly key: 'take' | 'back' }
  | { readonly do: 'lead'; readonly to: Lead }
  | { readonly do: 'jack'; readonly to: Jack }
  | { readonly do: 'null'; readonly at: 0 | 100 }
  | { readonly do: 'valve'; readonly move: ValveMove }
  | { readonly do: 'fill leg' }
  /** A step of an exchange of the body, by its place in the list. */
  | { readonly do: 'swap'; readonly step: number }
  | { readonly do: 'pick body'; readonly body: number }
  /** What a screw was set from and to, as in the log of a job. */
  | { readonly do: 'log'; readonly screw: 'zero' | 'span'; readonly before: number; readonly after: number }
  | {
      readonly do: 'read';
      readonly percent: number;
      readonly way: Way;
      readonly pass: Pass;
      /** Missing where a script took what was shown. */
      readonly wrote?: Wrote;
    }
  /** What is said at a point besides its reading, as in a job. */
  | {
      readonly do: 'mark';
      readonly percent: number;
      readonly way: Way;
      readonly pass: Pass;
      readonly mark: 'overshot' | 'no reading' | 'note';
      readonly applied: string;
      readonly output: string;
      readonly remark: string;
    }
  | { readonly do: 'name'; readonly causes: readonly Cause[] }
  | { readonly do: 'hint' };

/** An act with the time of the bench at which it was done, s. */
export interface Done {
  readonly atS: number;
  readonly act: Act;
}

/** Whether an act changes what the instrument makes of a pressure; a loop that is held is let go again. */
export const isAdjusting = (act: Act): boolean =>
  act.do === 'turn' ||
  act.do === 'take' ||
  act.do === 'restore' ||
  act.do === 'gauge zero' ||
  act.do === 'gauge span' ||
  (act.do === 'tell' && act.command.kind !== 'hold' && act.command.kind !== 'face');
