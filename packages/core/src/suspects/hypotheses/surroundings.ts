/** What stands around the instrument: the air, the way to it, the wait, the reference. */
import { USUAL_AIR_PA, dwellsOf } from '../condition';
import type { Variant } from '../evidence';
import { logNormal, normal } from '../priors';
import { alike, alone, type Case } from './case';
import { factorOf } from './units';

const AIR_SPREAD_PA = 4000;
/** A barometer that was read may stand in another room. */
const READ_AIR_SPREAD_PA = 150;

/** Gauge for absolute, or the other way: off by the air, in the input unit. */
export function airVariants(of: Case): Variant[] {
  const { inputUnit, pressureKind, barometer } = of;
  if (inputUnit === null) return [];
  const pa = factorOf(inputUnit);
  const air =
    barometer === undefined
      ? normal(USUAL_AIR_PA / pa, AIR_SPREAD_PA / pa)
      : normal(barometer, READ_AIR_SPREAD_PA / pa);
  if (pressureKind === 'gauge' || pressureKind === 'compound')
    return alone({ parameters: [air], condition: ([by = 0]) => ({ sensorZero: by }) });
  if (pressureKind === 'absolute')
    return alone({ parameters: [air], condition: ([by = 0]) => ({ sensorZero: -by }) });
  return [];
}

/** Out of what was shut in, so that more is lost the longer it stands; or past a restriction, always the same share. */
export function leaks(of: Case): Variant[] {
  const parameters = [logNormal(Math.max(2 * of.limit, 0.01), 0.9)];
  return alike([
    { parameters, condition: ([leak = 0]) => ({ leak, vague: of.vague }) },
    { parameters, condition: ([leak = 0]) => ({ passed: leak }) },
  ]);
}

/** Read before it had settled: a lag of its own, or of the line. */
export function settling(of: Case): Variant[] {
  const [mean = 0] = dwellsOf(of.readings);
  const parameters = [logNormal(Math.max(mean, 1e-3) / 2.5, 0.5), logNormal(1, 0.3)];
  return alike([
    { parameters, condition: ([lagS = 0, late = 1]) => ({ lagS, late, vague: of.vague }) },
    { parameters, condition: ([lineS = 0, late = 1]) => ({ lineS, late, vague: of.vague }) },
  ]);
}

/** A reference whose gain or zero is off. */
export function references(of: Case): Variant[] {
  const { readings } = of;
  // A signal was read by the same meter at both ends of what lies between.
  if (readings.length === 0 || of.unit === null) return [];
  const size = Math.max(0.006, of.limit);
  return [
    {
      weight: 0.6,
      name: 'gain',
      parameters: [normal(0, size)],
      condition: ([referenceGain = 0]) => ({ referenceGain }),
    },
    {
      weight: 0.4,
      name: 'offset',
      parameters: [normal(0, size * of.span)],
      condition: ([referenceOffset = 0]) => ({ referenceOffset }),
    },
  ];
}
