/**
 * What can be behind the readings of a run. Each suspicion is a condition of the instrument, its reference or its surroundings with
 * parameters and how large they usually are. What is usual is common practice, from memory; a suspicion that cannot be (a head where
 * nothing is a pressure, a display that nobody read) is left out.
 */
import { LINEAR } from '../../signal';
import type { Suspected } from '../condition';
import type { Variant } from '../evidence';
import { between, logNormal, normal } from '../priors';
import { alike, alone, type Case, caseOf, gains, zeroes } from './case';
import {
  bends,
  displayVariants,
  gainVariants,
  outputGains,
  outputZeroes,
  resistors,
  rubbing,
} from './instrument';
import { doubled, limits, misplaced, neighbouringRanges, rangeVariants } from './ranges';
import { airVariants, leaks, references, settling } from './surroundings';
import { SUSPICIONS, type Suspicion } from './suspicions';
import { headOfMetre, otherUnits, unitVariants, waterUnits } from './units';

export { frequencyOf, SUSPICIONS, type Suspicion } from './suspicions';
export { headOfMetre } from './units';

/** Nothing where it cannot be in this case. */
const variantsOf = (of: Case): Readonly<Record<Suspicion, () => readonly Variant[]>> => ({
  nothing: () => alone({ parameters: [], condition: () => ({}) }),
  zero: () => alone({ parameters: [zeroes(of)], condition: ([sensorZero = 0]) => ({ sensorZero }) }),
  gain: () => gainVariants(of),
  'zero and gain': () =>
    alone({
      parameters: [zeroes(of), gains(of)],
      condition: ([sensorZero = 0, sensorGain = 0]) => ({ sensorZero, sensorGain }),
    }),
  // Without the digital value an output stage is off as a sensor is.
  'output zero': () => (of.knowsDigital ? outputZeroes(of) : []),
  'output gain': () => (of.knowsDigital ? outputGains(of) : []),
  'water reference': () => (of.unit === null ? [] : unitVariants(of, waterUnits(of.unit))),
  unit: () => (of.unit === null ? [] : unitVariants(of, otherUnits(of.unit))),
  range: () => rangeVariants(of),
  'neighbouring range': () => neighbouringRanges(of),
  'root missing': () =>
    of.isRoot ? alone({ parameters: [], condition: () => ({ transfers: [LINEAR] }) }) : [],
  'root doubled': () => (of.isRoot ? doubled(of) : []),
  'root misplaced': () => misplaced(of),
  reversed: () =>
    alike([
      { parameters: [], condition: () => ({ isReversed: true }) },
      { parameters: [], condition: () => ({ lrv: of.range.urv, urv: of.range.lrv }) },
    ]),
  'absolute or gauge': () => airVariants(of),
  'sides exchanged': () =>
    of.pressureKind === 'differential' ? alone({ parameters: [], condition: () => ({ inputGain: -1 }) }) : [],
  head: () =>
    of.unit === null
      ? []
      : alone({
          parameters: [normal(0, headOfMetre(of.unit))],
          condition: ([inputOffset = 0]) => ({ inputOffset }),
        }),
  resistor: () => resistors(of),
  saturated: () => limits(of),
  stuck: () => {
    const { outputLow, outputHigh } = of.range;
    const span = outputHigh - outputLow;
    return alone({
      parameters: [between(outputLow - 0.06 * span, outputHigh + 0.12 * span)],
      condition: ([stuck = 0]) => ({ stuck }),
    });
  },
  leak: () => (of.unit === null ? [] : leaks(of)),
  'not settled': () => settling(of),
  friction: () => rubbing(of),
  bent: () => bends(of),
  scatter: () =>
    alone({
      parameters: [logNormal(Math.max(200 * of.limit, 0.5), 0.7)],
      condition: ([scatter = 0]) => ({ scatter }),
    }),
  'display scale': () => displayVariants(of),
  reference: () => references(of),
});

/** All that can be behind the readings of a case, each with its variants. */
export function suspicionsOf(
  suspected: Suspected,
): readonly { readonly suspicion: Suspicion; readonly variants: readonly Variant[] }[] {
  const variants = variantsOf(caseOf(suspected));
  return SUSPICIONS.flatMap((suspicion) => {
    const its = variants[suspicion]();
    return its.length === 0 ? [] : [{ suspicion, variants: its }];
  });
}
