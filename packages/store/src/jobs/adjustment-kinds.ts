/** What can be logged between as found and as left. Free of PostgreSQL. */
import type { GuardedAct } from '@barys/core/adjust';

export const ADJUSTMENT_KINDS = [
  'zero',
  'span',
  'sensor trim',
  'output trim',
  'mid-scale',
  'near vacuum',
  're-range',
  'linkage',
  'factory restore',
  'last field restore',
  'cleaning',
  'part',
  'other',
] as const;
export type AdjustmentKind = (typeof ADJUSTMENT_KINDS)[number];

const GUARDED: Readonly<Partial<Record<AdjustmentKind, GuardedAct>>> = {
  zero: 'zero',
  span: 'span',
  'sensor trim': 'sensor trim',
  'output trim': 'output trim',
  'mid-scale': 'sensor trim',
  'near vacuum': 'sensor trim',
  're-range': 're-range',
};
/** The act of the core that a kind of adjustment is; null of what sets no signal. */
export const guardedAct = (kind: AdjustmentKind): GuardedAct | null => GUARDED[kind] ?? null;
