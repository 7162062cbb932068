/** What a trainee does at the bench, one by one; with their times they are the whole record of an attempt. */
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
  'field values wrong': 'the gauge holds wrong values from a calibration in the field',
  'body tilted': 'the body hangs tilted since its zero',
  'root twice': 'the root is taken twice',
  'receiver wrong': 'the receiver is wrong, the transmitter is right',
} as const;
export type Cause = keyof typeof CAUSES;

export type Pass = 'as found' | 'as left';
export type Way = 'up' | 'down';

/** What is told to a smart transmitter by a communicator. */
export type Command =
  | { readonly kind: 'zero trim' }
  | { readonly kind: 'sensor trim'; readonly end: 'lower' | 'upper'; readonly applied: number }
  | { readonly kind: 'output trim'; readonly at: 4 | 20; readonly measured: number }
  | { readonly kind: 'hold'; readonly milliamp: number | null }
  | { readonly kind: 'set'; readonly settings: Partial<Settings> };

export type Act =
  | { readonly do: 'stroke' }
  | { readonly do: 'fine'; readonly turns: number }
  | { readonly do: 'vent'; readonly open: number }
  | { readonly do: 'pressure'; readonly to: number }
  | { readonly do: 'turn'; readonly screw: 'zero' | 'span'; readonly turns: number }
  /** A digital gauge takes what is applied for what is said, or brings back what it held. */
  | { readonly do: 'take'; readonly point: PointName; readonly said: number }
  | { readonly do: 'restore'; readonly set: 'factory' | 'last field' }
  | { readonly do: 'tell'; readonly command: Command }
  | { readonly do: 'read'; readonly percent: number; readonly way: Way; readonly pass: Pass }
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
  (act.do === 'tell' && act.command.kind !== 'hold');
