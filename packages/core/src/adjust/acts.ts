/** What can be done to an instrument, from the least to the most, and which body has it. */

export const ACTS = [
  'none',
  'zero',
  'output trim',
  'zero and span',
  'sensor trim',
  'mid-scale',
  'zero and output trim',
  'sensor and output trim',
  're-range',
  'linkage',
  'repair',
] as const;
export type Act = (typeof ACTS)[number];

/** What can be turned, trimmed or set on a body. */
export const TRIMS = [
  'zero screw',
  'span screw',
  'range wheel',
  'linkage',
  'zero trim',
  'sensor trim',
  'output trim',
  'full scale',
  'mid-scale',
  'near vacuum',
] as const;
export type Trim = (typeof TRIMS)[number];

export const TECHNOLOGIES = ['analog', 'smart', 'pneumatic', 'dial gauge', 'digital gauge'] as const;
export type Technology = (typeof TECHNOLOGIES)[number];

/** What an instrument of its kind usually has, where its body is not told of (common practice, from memory). */
const USUAL: Readonly<Record<Technology, readonly Trim[]>> = {
  analog: ['zero screw', 'span screw'],
  pneumatic: ['zero screw', 'range wheel', 'linkage'],
  smart: ['zero trim', 'sensor trim', 'output trim'],
  'dial gauge': ['zero screw', 'linkage'],
  'digital gauge': ['zero trim', 'full scale', 'mid-scale'],
};

export interface AdjustableBody {
  readonly technology: Technology;
  /** Empty where nobody entered them. */
  readonly trims: readonly Trim[];
}

export const trimsOf = ({ technology, trims }: AdjustableBody): readonly Trim[] =>
  trims.length === 0 ? USUAL[technology] : trims;

/** Whether zero is set at true zero, with nothing applied, and not at the low end of the range. */
export const isZeroTrimmed = (body: AdjustableBody): boolean => !trimsOf(body).includes('zero screw');

/** Whether zero and span are screws that pull on each other; trims of a smart transmitter do not. */
export function hasScrews(body: AdjustableBody): boolean {
  const trims = trimsOf(body);
  return trims.includes('zero screw') && (trims.includes('span screw') || trims.includes('range wheel'));
}

/** The acts that a body has, from the least; nothing and repair are always there. */
export function actsOf(body: AdjustableBody): readonly Act[] {
  const trims = new Set(trimsOf(body));
  const has = (...wanted: readonly Trim[]): boolean => wanted.some((trim) => trims.has(trim));
  const hasZero = has('zero screw', 'zero trim');
  const known: Readonly<Record<Act, boolean>> = {
    none: true,
    zero: hasZero,
    'output trim': has('output trim'),
    'zero and span': hasZero && has('span screw', 'range wheel', 'full scale'),
    'sensor trim': has('sensor trim'),
    'mid-scale': hasZero && has('full scale') && has('mid-scale'),
    'zero and output trim': hasZero && has('output trim'),
    'sensor and output trim': has('sensor trim') && has('output trim'),
    // A range that is turned in by screws is the zero and span of it.
    're-range': body.technology === 'smart',
    linkage: has('linkage'),
    repair: true,
  };
  return ACTS.filter((act) => known[act]);
}
