/** What can be behind the readings of a run, by name. */

export const SUSPICIONS = [
  'nothing',
  'zero',
  'gain',
  'zero and gain',
  'output zero',
  'output gain',
  'water reference',
  'unit',
  'range',
  'neighbouring range',
  'root missing',
  'root doubled',
  'root misplaced',
  'reversed',
  'absolute or gauge',
  'sides exchanged',
  'head',
  'resistor',
  'saturated',
  'stuck',
  'leak',
  'not settled',
  'friction',
  'bent',
  'scatter',
  'display scale',
  'reference',
] as const;
export type Suspicion = (typeof SUSPICIONS)[number];

/**
 * How often each is met, beside the others. Nobody counts what is behind errors, so that one is taken to be as likely as another, but
 * for what everybody meets most.
 */
const OFTEN: Partial<Record<Suspicion, number>> = { nothing: 2, zero: 2, gain: 1.5 };
export const frequencyOf = (suspicion: Suspicion): number => OFTEN[suspicion] ?? 1;
