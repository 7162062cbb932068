/**
 * The order in which gauges are adjusted where it is not that of two screws (common practice, from memory): a digital gauge at
 * zero, full scale, mid-scale and, if it is compound, near vacuum, each after a wait; a vacuum gauge in passes.
 */
import type { PressureKind } from '../units';
import { trimsOf, type AdjustableBody, type Trim } from './acts';

export interface SequenceStep {
  /** What is logged when it is done; null of a step that only reads. */
  readonly logs: 'zero' | 'span' | 'mid-scale' | 'near vacuum' | null;
  readonly what: string;
  readonly how: string;
  /** Per cent of the input span where it is made; null where it is no point of the range. */
  readonly atPercent: number | null;
  /** How long the value stands before it is taken, s; null where nothing is taken after a wait. */
  readonly waitS: number | null;
}

/** Seconds that an applied value stands before a digital gauge takes it. */
export const WAIT_BEFORE_TAKEN_S = 30;
const WAIT = `Wait ${WAIT_BEFORE_TAKEN_S} s until it stands, then let the gauge take it.`;

function digitalSteps(kind: PressureKind, trims: ReadonlySet<Trim>): SequenceStep[] {
  const steps: SequenceStep[] = [
    {
      logs: 'zero',
      what: 'Zero',
      how: `Open to the air. ${WAIT}`,
      atPercent: kind === 'compound' ? null : 0,
      waitS: WAIT_BEFORE_TAKEN_S,
    },
  ];
  if (trims.has('full scale'))
    steps.push({
      logs: 'span',
      what: 'Full scale',
      how: `Apply full scale from below. ${WAIT}`,
      atPercent: 100,
      waitS: WAIT_BEFORE_TAKEN_S,
    });
  if (trims.has('mid-scale'))
    steps.push({
      logs: 'mid-scale',
      what: 'Mid-scale',
      how: `Apply the middle from below: it takes out the bow between zero and full scale. ${WAIT}`,
      atPercent: 50,
      waitS: WAIT_BEFORE_TAKEN_S,
    });
  if (kind === 'compound' && trims.has('near vacuum'))
    steps.push({
      logs: 'near vacuum',
      what: 'Near vacuum',
      how: `Pump down as far as the pump goes and read the reference. ${WAIT}`,
      atPercent: 0,
      waitS: WAIT_BEFORE_TAKEN_S,
    });
  return steps;
}

const VACUUM: readonly SequenceStep[] = [
  {
    logs: null,
    what: 'Set-up value',
    how: 'Set the value that the maker gives for this sensor and gas, before anything is adjusted.',
    atPercent: null,
    waitS: null,
  },
  {
    logs: 'zero',
    what: 'Zero',
    how: 'Pump well below the lowest decade, at least a tenth of it, and wait until it stands.',
    atPercent: null,
    waitS: null,
  },
  {
    logs: 'span',
    what: 'Span',
    how: 'Let gas in up to the highest decade that the reference is good in. Never at atmosphere: the barometer moves.',
    atPercent: null,
    waitS: null,
  },
  {
    logs: null,
    what: 'Readings up',
    how: 'One reading in each decade, rising, the gas let in slowly.',
    atPercent: null,
    waitS: null,
  },
  { logs: null, what: 'Readings down', how: 'The same decades, pumped down.', atPercent: null, waitS: null },
  {
    logs: 'zero',
    what: 'Correct again',
    how: 'Where a decade is out, zero and span once more: they pull on each other.',
    atPercent: null,
    waitS: null,
  },
];

/** The steps of a gauge; null where screws or trims are set as the errors ask. */
export function sequenceOf(kind: PressureKind, body: AdjustableBody): readonly SequenceStep[] | null {
  if (kind === 'vacuum') return VACUUM;
  if (body.technology !== 'digital gauge') return null;
  return digitalSteps(kind, new Set(trimsOf(body)));
}
