/** What is known of a case, as every suspicion needs it. */
import { transferOf } from '../../signal';
import type { PressureUnit } from '../../units';
import type { Suspected } from '../condition';
import type { Variant } from '../evidence';
import { normal } from '../priors';

export interface Case extends Suspected {
  /** In the input unit. */
  readonly span: number;
  /** Share of span. */
  readonly limit: number;
  readonly isRoot: boolean;
  /** Null where the input is no pressure. */
  readonly unit: PressureUnit | null;
  readonly knowsDigital: boolean;
  /** How much effects of time are off, share: more where nobody wrote the time down. */
  readonly vague: number;
}

/** @returns a case with what follows from its range and its readings */
export const caseOf = (suspected: Suspected): Case => {
  const { range, limitPercent, inputUnit, readings } = suspected;
  return {
    ...suspected,
    span: Math.abs(range.urv - range.lrv),
    limit: limitPercent / 100,
    isRoot: transferOf(range).kind.startsWith('square-root'),
    unit: inputUnit,
    knowsDigital: readings.some(({ digital }) => digital !== undefined),
    vague: readings.every(({ at }) => at !== undefined) ? 0.06 : 0.35,
  };
};

/** The one variant of a suspicion. */
export const alone = (variant: Omit<Variant, 'weight'>): Variant[] => [{ ...variant, weight: 1 }];

/** Variants that are as likely as one another, of a share of their suspicion. */
export const alike = (variants: readonly Omit<Variant, 'weight'>[], weight = 1): Variant[] =>
  variants.map((variant) => ({ ...variant, weight: weight / variants.length }));

/** How far zero or gain usually drifts when it does, share of span: as its history says, or some limits. */
export function drift(of: Case, end: 'zeroPercent' | 'gainPercent'): number {
  const { drifts = [] } = of;
  const usual = Math.max(2.5 * of.limit, 0.01);
  if (drifts.length < 3) return usual;
  const rms = Math.sqrt(drifts.reduce((sum, one) => sum + one[end] ** 2, 0) / drifts.length) / 100;
  return Math.min(usual, Math.max(of.limit, 3 * rms));
}

/** How far a zero is usually off, input unit. */
export const zeroes = (of: Case) => normal(0, drift(of, 'zeroPercent') * of.span);
/** How far a gain is usually off, share. */
export const gains = (of: Case) => normal(0, drift(of, 'gainPercent'));
