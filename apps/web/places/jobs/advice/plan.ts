/** What is logged for an act, in its order, and at which end of the range each is made. */
import type { Act } from '@barys/core/adjust';
import type { AdjustmentKind } from '@barys/store/jobs';

export interface PlannedStep {
  readonly kind: AdjustmentKind;
  /** Where it is made: `true zero` is nothing applied, or the low end where a screw is turned there. */
  readonly end: 'true zero' | 'zero' | 'span' | 'middle';
}

const at = (kind: AdjustmentKind, end: PlannedStep['end']): PlannedStep => ({ kind, end });
const SENSOR = [at('sensor trim', 'zero'), at('sensor trim', 'span')];
const OUTPUT = [at('output trim', 'zero'), at('output trim', 'span')];
const SCREWS = [at('zero', 'true zero'), at('span', 'span')];

const PLAN: Readonly<Record<Act, readonly PlannedStep[]>> = {
  none: SCREWS,
  zero: [at('zero', 'true zero')],
  'zero and span': SCREWS,
  'sensor trim': SENSOR,
  'output trim': OUTPUT,
  'zero and output trim': [at('zero', 'true zero'), ...OUTPUT],
  'sensor and output trim': [...SENSOR, ...OUTPUT],
  'mid-scale': [...SCREWS, at('mid-scale', 'middle')],
  're-range': [at('re-range', 'zero')],
  linkage: [at('linkage', 'middle'), ...SCREWS],
  repair: SCREWS,
};

/** The step that comes next after so many that are logged; screws go round, the rest ends with its last. */
export function plannedStep(act: Act | null, made: number): PlannedStep {
  const plan = PLAN[act ?? 'none'];
  const place = plan === SCREWS ? made % plan.length : Math.min(made, plan.length - 1);
  return plan[place] ?? at('zero', 'true zero');
}

/** The end at which a kind is made that was chosen by hand. */
export const endOfKind = (kind: AdjustmentKind): PlannedStep['end'] =>
  kind === 'span' ? 'span' : kind === 'mid-scale' ? 'middle' : kind === 'zero' ? 'true zero' : 'zero';
